import { airworthinessFiles, scenarioFiles } from "@cravix/demo";
import { HOME_GROUP, listen, migrateDatabase, openDatabase, writeFile } from "@cravix/server";
import mysql from "mysql2/promise";
import pino from "pino";
import { benchDatabase } from "../bench-database";
import { atMost, type Figure, plain, quantile } from "../figure";
import { so } from "../size";

const FEW = so(10_000, 1000);
const MANY = so(1_000_000, 2000);
const REGISTRATIONS = ["QX-TAR", "QX-HLD", "QX-LUM", "QX-DOV", "QX-COR"];
const QUERIES = so(600, 5);
const LIMIT = 60;

/** Fills the technical log with a database sequence, the fastest way. */
async function fill(connection: mysql.Connection, from: number, to: number): Promise<void> {
  const list = REGISTRATIONS.map((r) => `'${r}'`).join(",");
  await connection.query(`INSERT INTO flight_log (group_id, id, registration, stream_id, off_at, on_at, pilot, line)
    SELECT '${HOME_GROUP}', LPAD(HEX(seq), 36, '0'), ELT(1 + seq % ${REGISTRATIONS.length}, ${list}), LPAD(HEX(seq), 36, '0'),
      TIMESTAMPADD(SECOND, seq * 300, '2015-01-01'), TIMESTAMPADD(SECOND, seq * 300 + 3600, '2015-01-01'), 'ines',
      JSON_OBJECT('registration', 'QX-TAR', 'from', 'here', 'to', 'there', 'pilot', 'ines', 'meters', JSON_OBJECT(), 'counts', JSON_OBJECT('landings', 1))
    FROM seq_${from}_to_${to}`);
  await connection.query("ANALYZE TABLE flight_log");
}

/** Requests a first page and a later one of every aircraft in turn. */
async function ask(port: number): Promise<number[]> {
  const took: number[] = [];
  for (let i = 0; i < QUERIES; i++) {
    const registration = REGISTRATIONS[i % REGISTRATIONS.length];
    const before = i % 3 === 0 ? `&before=2015-01-04T00:00:00.000Z~${"0".repeat(36)}` : "";
    const from = performance.now();
    const response = await fetch(
      `http://127.0.0.1:${port}/api/v1/aircraft/${registration}/flights?limit=${LIMIT}${before}`,
    );
    const { items } = (await response.json()) as { items: unknown[] };
    took.push(performance.now() - from);
    if (items.length !== LIMIT) throw new Error(`only ${items.length} entries returned`);
  }
  return took;
}

/** Pages of the technical log with a million entries compared with ten thousand, in the same run. */
export async function flightHistory(): Promise<Figure[]> {
  const running = await benchDatabase();
  const name = `cravix_flights_${process.pid}`;
  const admin = await mysql.createConnection(running.options);
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const database = openDatabase({ ...running.options, database: name });
  await migrateDatabase(database);
  for (const file of [...scenarioFiles, ...airworthinessFiles(new Date())])
    await writeFile(database.db, file, { groupId: HOME_GROUP, by: "operator" });
  const connection = await mysql.createConnection({ ...running.options, database: name });
  const web = await listen({ database, logger: pino({ level: "silent" }) }, 0, "127.0.0.1");
  await fill(connection, 1, FEW);
  await ask(web.port);
  const few = await ask(web.port);
  await fill(connection, FEW + 1, MANY);
  await ask(web.port);
  const many = await ask(web.port);
  await web.close();
  await connection.end();
  await database.close();
  await admin.query(`DROP DATABASE ${name}`);
  await admin.end();
  await running.stop();
  return [
    atMost(
      "technical log page with a million entries, 99th percentile (baseline: ten thousand entries)",
      quantile(many, 0.99),
      "ms",
      quantile(few, 0.99),
      1.5,
    ),
    plain(
      "technical log page with a million entries, median (baseline: ten thousand entries)",
      quantile(many, 0.5),
      "ms",
      quantile(few, 0.5),
    ),
  ];
}
