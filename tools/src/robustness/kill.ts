import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { seededRandom } from "@cravix/core/units/seeded-random";
import { checkProjections, openDatabase } from "@cravix/server";
import { makePreflight } from "./make-walks";
import { ServerProcess } from "./server-process";

export interface KillOutcome {
  kills: number;
  acknowledged: number;
  /** Acknowledged events missing from the record. */
  lost: string[];
  differences: unknown[];
  events: number;
}

const SENDERS = 6;

/**
 * Kills the server, its database or both repeatedly while several devices send discrepancies, observations, and undos in later
 * batches. After each round every acknowledged event must be on record, and every projection equal to a fresh fold.
 */
export async function killAgainAndAgain(kills: number, seed: number): Promise<KillOutcome> {
  const server = new ServerProcess();
  const random = seededRandom(seed);
  const outcome: KillOutcome = { kills: 0, acknowledged: 0, lost: [], differences: [], events: 0 };
  const acknowledged = new Set<string>();
  const opened: string[] = [];
  /** Unsent events of the devices: unconfirmed batches are repeated, harmlessly. */
  const queues: PreflightEvent[][] = Array.from({ length: SENDERS }, () => []);
  for (let round = 0; round < kills; round++) {
    await server.start();
    let over = false;
    const lanes = queues.map(async (queue) => {
      while (!over) {
        if (queue.length < 12) queue.push(...makePreflight(random, opened, 10));
        const batch = queue.slice(0, 1 + Math.floor(random() * 8));
        try {
          const answer = await fetch(`${server.url}/api/v1/events`, {
            method: "POST",
            headers: { "content-type": "application/json" },
            body: JSON.stringify({ events: batch }),
            signal: AbortSignal.timeout(10_000),
          });
          if (!answer.ok) throw new Error(String(answer.status));
          const { refused } = (await answer.json()) as { refused: { id: string; reason: string }[] };
          const no = new Map(refused.map((r) => [r.id, r.reason]));
          for (const event of batch)
            if (no.has(event.id)) outcome.lost.push(`${event.type} rejected: ${no.get(event.id)}`);
            else acknowledged.add(event.id);
          queue.splice(0, batch.length);
        } catch {
          await new Promise((resolve) => setTimeout(resolve, 50));
        }
      }
    });
    await new Promise((resolve) => setTimeout(resolve, 150 + random() * 900));
    const dice = random();
    if (dice < 0.4) process.kill(server.databaseSettings.pid, "SIGKILL");
    if (dice > 0.25) await server.kill("SIGKILL");
    over = true;
    await Promise.all(lanes);
    await server.kill("SIGKILL");
    outcome.kills++;
  }
  await server.start();
  const { port, password } = server.databaseSettings;
  const database = openDatabase({ host: "127.0.0.1", port, user: "cravix", password, database: "cravix" });
  const [rows] = await database.pool.query("SELECT id FROM event");
  const there = new Set((rows as { id: string }[]).map(({ id }) => id));
  for (const id of acknowledged)
    if (!there.has(id)) outcome.lost.push(`${id} was acknowledged but is not in the database`);
  outcome.acknowledged = acknowledged.size;
  const check = await checkProjections(database.db);
  outcome.differences = check.differences;
  outcome.events = check.events;
  await database.close();
  await server.remove();
  return outcome;
}
