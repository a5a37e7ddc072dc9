import { randomBytes } from "node:crypto";
import { scenarioFiles } from "@cravix/demo";
import mysql from "mysql2/promise";
import pino from "pino";
import { createApp } from "../src/app";
import { type Database, type DatabaseOptions, openDatabase } from "../src/db/database";
import { HOME_GROUP } from "../src/db/schema/group";
import { migrateDatabase } from "../src/events/migrate-database";
import { writeFile } from "../src/fleet/write-file";

export const NOW = new Date("2026-05-01T12:00:00.000Z");

/** The group of the tests, at the time of the tests. */
export const HOME = { groupId: HOME_GROUP, now: NOW };

export interface TestApp {
  database: Database;
  request(path: string, body?: unknown, method?: string, headers?: Record<string, string>): Promise<Response>;
  /** Saves an aircraft's file, based on a given version. */
  saveFile(file: object, basis: string): Promise<Response>;
  count(table: string): Promise<number>;
  close(): Promise<void>;
}

/** The real application on a real MariaDB, in its own schema, with the demo's files. */
export async function testApp(): Promise<TestApp> {
  const options: DatabaseOptions = JSON.parse(process.env.CRAVIX_TEST_DATABASE ?? "{}");
  const name = `cravix_test_${randomBytes(6).toString("hex")}`;
  const admin = await mysql.createConnection(options);
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const database = openDatabase({ ...options, database: name });
  await migrateDatabase(database, `${__dirname}/../drizzle`);
  for (const file of scenarioFiles)
    await writeFile(database.db, file, { groupId: HOME_GROUP, by: "operator" });
  const app = createApp({ database, logger: pino({ level: "silent" }), clock: () => NOW });
  return {
    database,
    request: async (path, body, method = body === undefined ? "GET" : "POST", headers = {}) =>
      app.request(path, {
        method,
        headers: {
          "content-type": typeof body === "string" && /-log$/.test(path) ? "text/csv" : "application/json",
          // An owner, unless the test says otherwise.
          "cravix-crew": "yuki",
          ...headers,
        },
        ...(body !== undefined && { body: typeof body === "string" ? body : JSON.stringify(body) }),
      }),
    saveFile: async (file, basis) =>
      app.request("/api/v1/files", {
        method: "POST",
        headers: { "content-type": "application/json", "cravix-crew": "yuki", "if-match": `"${basis}"` },
        body: JSON.stringify(file),
      }),
    count: async (table) => {
      const [rows] = await database.pool.query(`SELECT COUNT(*) AS n FROM ${table}`);
      return (rows as { n: number }[])[0]?.n ?? -1;
    },
    close: async () => {
      await database.close();
      await admin.query(`DROP DATABASE ${name}`);
      await admin.end();
    },
  };
}
