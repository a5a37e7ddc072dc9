import { readFileSync } from "node:fs";
import { join } from "node:path";
import mysql, { type Connection, type RowDataPacket } from "mysql2/promise";

/** Name of the database with the snapshot. */
const COPY = "cravix_prepared";

export interface DatabaseSettings {
  port: number;
  password: string;
  pid: number;
}

export const databaseSettings = (directory: string): DatabaseSettings =>
  JSON.parse(readFileSync(join(directory, "database.json"), "utf8"));

/** Connects to the database of a data directory, alongside the server. */
export async function withDatabase<T>(
  directory: string,
  ask: (database: Connection) => Promise<T>,
): Promise<T> {
  const { port, password } = databaseSettings(directory);
  const connection = await mysql.createConnection({
    host: "127.0.0.1",
    port,
    user: "cravix",
    password,
    database: "cravix",
  });
  try {
    return await ask(connection);
  } finally {
    await connection.end();
  }
}

async function tablesOf(database: Connection, schema: string): Promise<string[]> {
  const [rows] = await database.query<RowDataPacket[]>(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? AND table_name NOT LIKE '\\_\\_%'",
    [schema],
  );
  return rows.map(({ name }) => name as string);
}

/** Copies every table into a snapshot database. */
export async function keepPreparedSnapshot(database: Connection): Promise<void> {
  await database.query(`CREATE DATABASE ${COPY}`);
  for (const table of await tablesOf(database, "cravix")) {
    await database.query(`CREATE TABLE ${COPY}.${table} LIKE cravix.${table}`);
    await database.query(`INSERT INTO ${COPY}.${table} SELECT * FROM cravix.${table}`);
  }
}

/** Restores every table from the snapshot. */
export async function restoreSnapshot(database: Connection): Promise<void> {
  const tables = await tablesOf(database, COPY);
  if (tables.length === 0) throw new Error("no snapshot to restore");
  await database.beginTransaction();
  for (const table of tables) {
    await database.query(`DELETE FROM cravix.${table}`);
    await database.query(`INSERT INTO cravix.${table} SELECT * FROM ${COPY}.${table}`);
  }
  await database.commit();
}
