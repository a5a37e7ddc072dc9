import { randomBytes } from "node:crypto";
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { scenarioFiles } from "@cravix/demo";
import { migrate } from "drizzle-orm/mysql2/migrator";
import mysql from "mysql2/promise";
import pino from "pino";
import { NOW } from "../../testing/test-app";
import { createApp } from "../app";
import { type DatabaseOptions, openDatabase } from "../db/database";
import { checkProjections } from "./check-projections";
import { migrateDatabase } from "./migrate-database";

const DRIZZLE = `${__dirname}/../../drizzle`;
const id = (n: number) => `0198a000-0000-7000-8000-${String(n).padStart(12, "0")}`;
const WALK = id(1000);
const OTHER = id(2000);

/** Migrations before the undo rules. */
function migrationsBefore(): string {
  const folder = mkdtempSync(join(tmpdir(), "cravix-drizzle-"));
  cpSync(DRIZZLE, folder, { recursive: true });
  const journal = join(folder, "meta", "_journal.json");
  const { entries, ...rest } = JSON.parse(readFileSync(journal, "utf8"));
  writeFileSync(journal, JSON.stringify({ ...rest, entries: entries.slice(0, 2) }));
  return folder;
}

/**
 * A stream recorded by an earlier version: a discrepancy undone from another preflight, a signature by someone else, readings by
 * two people.
 */
const RECORDED: [n: number, walk: string, crew: string, type: string, data: object][] = [
  [
    1,
    WALK,
    "ines",
    "preflight.started",
    { registration: "QX-TAR", listHash: `sha256:${"0".repeat(64)}`, conditions: [] },
  ],
  [2, WALK, "ines", "item.answered", { itemId: "tail.skid", outcome: "sound" }],
  [3, WALK, "maren", "reading.taken", { itemId: "oil.level", key: "oil.level", value: 6.5, unit: "US qt" }],
  [
    4,
    WALK,
    "ines",
    "discrepancy.opened",
    { discrepancyId: id(91), registration: "QX-TAR", stationId: "tail", text: "Taken back", grade: "stop" },
  ],
  [
    5,
    WALK,
    "ines",
    "discrepancy.opened",
    { discrepancyId: id(92), registration: "QX-TAR", stationId: "tail", text: "Still open", grade: "watch" },
  ],
  [6, OTHER, "maren", "item.undone", { eventId: id(4) }],
  [
    7,
    OTHER,
    "maren",
    "discrepancy.observed",
    { discrepancyId: id(92), itemId: "k", state: "grown", measure: "5 mm" },
  ],
  [8, WALK, "maren", "item.undone", { eventId: id(2) }],
  [9, WALK, "maren", "verdict.signed", { verdict: "go with notes", decision: "fly", reasons: [] }],
];

test("a database of the version before keeps what its events meant, and takes new ones by the new rules", async () => {
  const options: DatabaseOptions = JSON.parse(process.env.CRAVIX_TEST_DATABASE ?? "{}");
  const name = `cravix_test_${randomBytes(6).toString("hex")}`;
  const admin = await mysql.createConnection(options);
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const database = openDatabase({ ...options, database: name });
  await migrate(database.db, { migrationsFolder: migrationsBefore() });
  const { pool } = database;
  for (const file of scenarioFiles as {
    format: string;
    id?: string;
    registration?: string;
    typeId?: string;
    members?: { id: string; name: string; role: string }[];
  }[]) {
    const body = JSON.stringify(file);
    if (file.format === "cravix.aircraft/2")
      await pool.query("INSERT INTO aircraft VALUES (?, ?, ?)", [file.registration, file.typeId, body]);
    else if (file.format === "cravix.aircraft-type/2")
      await pool.query("INSERT INTO aircraft_type VALUES (?, ?)", [file.id, body]);
    else
      for (const m of file.members ?? [])
        await pool.query("INSERT INTO crew VALUES (?, ?, ?)", [m.id, m.name, m.role]);
  }
  for (const [n, walk, crew, type, data] of RECORDED) {
    const about = (data as { discrepancyId?: string }).discrepancyId ?? null;
    const undoes = (data as { eventId?: string }).eventId ?? null;
    const at = `2026-04-01 10:00:0${n}.000`;
    await pool.query("INSERT INTO event VALUES (?,?,?,?,?,?,?,?,?,?)", [
      ...[id(n), walk, id(3000), crew, type, at, at],
      ...[about, undoes, JSON.stringify(data)],
    ]);
  }
  // Tables as that version wrote them: the undone discrepancy has no row.
  await pool.query(
    "INSERT INTO preflight VALUES (?, 'QX-TAR', 'ines', ?, '2026-04-01 10:00:01.000', '2026-04-01 10:00:09.000', '[]', 1, 1, 'go with notes', 'fly', '2026-04-01 10:00:09.000', 7)",
    [WALK, `sha256:${"0".repeat(64)}`],
  );
  await pool.query(
    "INSERT INTO preflight (id, last_at, conditions, answered, event_count) VALUES (?, '2026-04-01 10:00:07.000', '[]', 1, 2)",
    [OTHER],
  );
  await pool.query(
    "INSERT INTO reading VALUES (?, 'oil.level', 'QX-TAR', 6.5, 'US qt', '2026-04-01 10:00:03.000', 'ines')",
    [WALK],
  );
  await pool.query(
    "INSERT INTO discrepancy VALUES (?, 'QX-TAR', 'tail', 'Still open', 'watch', '2026-04-01 10:00:05.000', 'ines', '5 mm', ?, NULL, NULL, NULL)",
    [
      id(92),
      JSON.stringify([{ at: "2026-04-01T10:00:07.000Z", crewId: "maren", state: "grown", measure: "5 mm" }]),
    ],
  );
  await pool.query(
    "INSERT INTO fluid_log VALUES (?, 'QX-TAR', 'oil', 'level', NULL, 6.5, 'US qt', NULL, NULL, NULL, NULL, '2026-04-01 10:00:03.000', NULL)",
    ["f".repeat(32)],
  );

  await migrateDatabase(database, DRIZZLE);
  // A start killed halfway runs it again.
  await pool.query("DELETE FROM __drizzle_migrations ORDER BY created_at DESC LIMIT 1");
  await migrateDatabase(database, DRIZZLE);

  const app = createApp({ database, logger: pino({ level: "silent" }), clock: () => NOW });
  const get = async (path: string) => (await app.request(`/api/v1${path}`)).json();
  const post = async (events: object[]) =>
    (
      await app.request("/api/v1/events", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ events }),
      })
    ).json();
  const open = async () => (await get("/discrepancies")).items.map((d: { text: string }) => d.text);
  expect(await open()).toEqual(["Still open"]);
  const [rows] = await pool.query("SELECT crew_id FROM reading");
  expect(rows).toEqual([{ crew_id: "maren" }]);
  // One more event in the old preflight: it is folded completely, with its original meaning.
  const later = (n: number, crewId: string, type: string, data: object) => ({
    id: id(n),
    preflightId: WALK,
    deviceId: id(3000),
    crewId,
    at: "2026-04-01T11:00:00.000Z",
    type,
    data,
  });
  expect(
    await post([
      later(20, "ines", "item.answered", { itemId: "tail.rudder", outcome: "sound" }),
      later(21, "maren", "item.undone", { eventId: id(5) }),
      later(22, "ines", "verdict.signed", { verdict: "stop", decision: "not flying", reasons: [] }),
    ]),
  ).toMatchObject({ taken: 3, refused: [] });
  expect(await open()).toEqual(["Still open"]);
  const { summary, events } = await get(`/preflights/${WALK}`);
  expect(summary).toMatchObject({ verdict: "go with notes", decision: "fly", answered: 2 });
  expect(events.filter((e: { rules?: number }) => e.rules === 1)).toHaveLength(7);
  expect((await checkProjections(database.db)).differences.filter((d) => d.table !== "fluid_log")).toEqual(
    [],
  );
  await database.close();
  await admin.query(`DROP DATABASE ${name}`);
  await admin.end();
}, 30_000);
