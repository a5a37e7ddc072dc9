import { Agent, request } from "node:http";
import { newId } from "@cravix/contract";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { scenarioFiles, trainerHistory } from "@cravix/demo";
import { HOME_GROUP, listen, migrateDatabase, openDatabase, writeFile } from "@cravix/server";
import mysql from "mysql2/promise";
import pino from "pino";
import { benchDatabase } from "../bench-database";
import { atLeast, type Figure, quantile } from "../figure";
import { so } from "../size";

const BATCH = 500;
/** Columns written per event; the plain inserts write the same. */
const COLUMNS =
  "group_id, id, stream_id, device_id, crew_id, type, at, received_at, discrepancy_id, undoes_id, data";
const ROUNDS = so(24, 1);
/** Warm-up rounds for both. */
const WARM_UP = so(12, 0);

/** Real preflights with new ids in every copy. */
function batches(now: Date, count: number): PreflightEvent[][] {
  const events: PreflightEvent[] = [];
  while (events.length < count * BATCH) {
    const fresh = new Map<string, string>();
    const renew = (id: string) => {
      const known = fresh.get(id) ?? newId(now.getTime() - 3_600_000);
      fresh.set(id, known);
      return known;
    };
    const history = trainerHistory(now).events;
    // A discrepancy has the id of the event that logs it.
    for (const event of history)
      if (event.type === "discrepancy.opened") fresh.set(event.data.discrepancyId, renew(event.id));
    for (const event of history) {
      const data =
        "discrepancyId" in event.data
          ? { ...event.data, discrepancyId: renew(event.data.discrepancyId) }
          : event.data;
      events.push({
        ...event,
        id: renew(event.id),
        streamId: renew(event.streamId),
        data,
      } as PreflightEvent);
    }
  }
  return Array.from({ length: count }, (_, i) => events.slice(i * BATCH, (i + 1) * BATCH));
}

const agent = new Agent({ keepAlive: true });

/** The simplest client, so that it costs nothing. */
function post(port: number, body: string): Promise<{ taken: number }> {
  return new Promise((resolve, reject) => {
    const headers = { "content-type": "application/json", "content-length": Buffer.byteLength(body) };
    const call = request(
      { port, host: "127.0.0.1", path: "/api/v1/events", method: "POST", agent, headers },
      (response) => {
        let text = "";
        response.on("data", (part) => {
          text += part;
        });
        response.on("end", () => resolve(JSON.parse(text)));
      },
    );
    call.once("error", reject);
    call.end(body);
  });
}

/** Through HTTP, validation, log and projections, compared with plain multi-row inserts of the same rows with the same driver. */
export async function eventsPerSecond(): Promise<Figure[]> {
  const running = await benchDatabase();
  const name = `cravix_bench_${process.pid}`;
  const options = { ...running.options, database: name };
  const admin = await mysql.createConnection(running.options);
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const database = openDatabase(options);
  await migrateDatabase(database);
  for (const file of scenarioFiles)
    await writeFile(database.db, file, { groupId: HOME_GROUP, by: "operator" });
  await database.pool.query("CREATE TABLE event_plain LIKE event");
  const web = await listen({ database, logger: pino({ level: "silent" }) }, 0, "127.0.0.1");
  const now = new Date();
  const work = batches(now, 2 * (ROUNDS + WARM_UP));

  const plain = async (events: PreflightEvent[]) => {
    const rows = events.map((e) => [
      HOME_GROUP,
      e.id,
      e.streamId,
      e.deviceId,
      e.crewId,
      e.type,
      e.at.slice(0, 23).replace("T", " "),
      e.at.slice(0, 23).replace("T", " "),
      null,
      null,
      JSON.stringify(e.data),
    ]);
    const from = performance.now();
    await database.pool.query(`INSERT INTO event_plain (${COLUMNS}) VALUES ?`, [rows]);
    return BATCH / ((performance.now() - from) / 1000);
  };
  const throughApi = async (events: PreflightEvent[]) => {
    const body = JSON.stringify({ events });
    const from = performance.now();
    const answer = await post(web.port, body);
    if (answer.taken !== BATCH)
      throw new Error(
        `only ${answer.taken} of ${BATCH} events were accepted: ${JSON.stringify(answer).slice(0, 300)}`,
      );
    return BATCH / ((performance.now() - from) / 1000);
  };
  const api: number[] = [];
  const base: number[] = [];
  for (let i = 0; i + 1 < work.length; i += 2) {
    // Alternating, so that machine noise affects both.
    base.push(await plain(work[i] ?? []));
    api.push(await throughApi(work[i + 1] ?? []));
  }
  await web.close();
  await database.close();
  await admin.query(`DROP DATABASE ${name}`);
  await admin.end();
  await running.stop();
  return [
    atLeast(
      "events through the API, median",
      quantile(api.slice(WARM_UP), 0.5),
      "events/s",
      quantile(base.slice(WARM_UP), 0.5),
      0.5,
    ),
  ];
}
