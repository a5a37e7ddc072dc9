import { setTimeout as sleep } from "node:timers/promises";
import { sql } from "drizzle-orm";
import { drizzle, type MySql2Database } from "drizzle-orm/mysql2";
import mysql, { type Pool } from "mysql2/promise";
import * as airworthiness from "./schema/airworthiness";
import * as checklist from "./schema/checklist";
import * as discrepancy from "./schema/discrepancy";
import * as fleet from "./schema/fleet";
import * as fluids from "./schema/fluids";
import * as people from "./schema/people";
import * as photographs from "./schema/photograph";

export interface DatabaseOptions {
  host: string;
  port: number;
  user: string;
  password: string;
  database: string;
}

export const schema = {
  ...airworthiness,
  ...checklist,
  ...discrepancy,
  ...fleet,
  ...fluids,
  ...people,
  ...photographs,
};
export type Db = MySql2Database<typeof schema> & { $client: Pool };
/** The same interface within a transaction. */
export type Tx = Parameters<Parameters<Db["transaction"]>[0]>[0];

export interface Database {
  db: Db;
  pool: Pool;
  close(): Promise<void>;
}

export function openDatabase(options: DatabaseOptions): Database {
  const pool = mysql.createPool({
    ...options,
    connectionLimit: 8,
    // Beyond this, requests fail immediately instead of waiting.
    queueLimit: 400,
    timezone: "Z",
    dateStrings: true,
    charset: "utf8mb4_bin",
    connectTimeout: 3000,
  });
  // READ COMMITTED: each statement must see changes it waited for.
  pool.on("connection", (connection) => {
    connection.query("SET SESSION tx_isolation = 'READ-COMMITTED', innodb_lock_wait_timeout = 5");
  });
  return { db: drizzle(pool, { schema, mode: "default" }), pool, close: () => pool.end() };
}

/** True if the database responds within two seconds. */
export async function databaseAnswers({ db }: Database): Promise<boolean> {
  const answer = db.execute(sql`select 1`).then(
    () => true,
    () => false,
  );
  const late = sleep(2000, false, { ref: false });
  return Promise.race([answer, late]);
}
