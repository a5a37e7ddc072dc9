import { contentHash } from "@cravix/contract";
import { fluidCsv } from "@cravix/contract/logs";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { seededRandom } from "@cravix/core/units/seeded-random";
import { airfield, pastYear, qxTar, rules, scenarioFiles, tarrow4 } from "@cravix/demo";
import { makePreflight, type Random } from "./make-walks";
import { mutated, torn } from "./mutate";
import { ServerProcess } from "./server-process";

export interface FuzzOutcome {
  requests: number;
  byStatus: Record<string, number>;
  /** Responses of 500 and above, or none. */
  troubles: string[];
  goodSent: number;
  /** Valid events that were rejected, or accepted but not on record. */
  goodLost: string[];
  /** Latency of a small request meanwhile, ms. */
  neighbour: { median: number; most: number };
}

interface Attack {
  method: string;
  path: string;
  type?: string;
  body?: string | Uint8Array;
  /** Valid events in it, all of which must be accepted. */
  good?: PreflightEvent[];
}

/** A batch of valid and invalid events. */
function batch(random: Random, opened: string[]): Attack {
  const good = makePreflight(random, opened, 2 + Math.floor(random() * 10));
  const parts = good.map((event) => JSON.stringify(event));
  const spoilt = 1 + Math.floor(random() * 6);
  for (let i = 0; i < spoilt; i++) {
    const [model] = makePreflight(random, [], 3).slice(-1);
    parts.splice(Math.floor(random() * parts.length), 0, mutated(model, random));
  }
  return {
    method: "POST",
    path: "/api/v1/events",
    type: "application/json",
    body: `{"events":[${parts.join(",")}]}`,
    good,
  };
}

const list = composeList({
  type: tarrow4,
  aircraft: qxTar,
  conditions: [],
  openDiscrepancies: [],
  airfield,
  rules,
});
const table = fluidCsv(
  "fuel",
  pastYear(new Date())
    .filter((row) => row.fluid === "fuel")
    .slice(0, 200),
);
const PUMP = { registration: "QX-TAR", tankId: "left", litres: 40, grade: "100LL" };
const PATHS = [
  "/api/v1/aircraft/",
  "/api/v1/preflights/",
  "/api/v1/lists/",
  "/api/v1/files/aircraft/",
  "/api/v1/preflights?limit=",
  "/api/v1/preflights?before=",
  "/api/v1/discrepancies?state=",
  "/api/v1/aircraft/QX-TAR/fuel-log?limit=",
  "/api/v1/aircraft/QX-TAR/oil-log?before=",
  "/api/v1/monitor/run-up.csv?registration=QX-TAR&fault=",
  "/api/v1/monitor/run-up.csv?registration=QX-TAR&hz=",
  "/api/v1/monitor/",
  "/_expo/",
  "/",
];
const BITS = [
  "__proto__",
  "constructor",
  "%00",
  "%20QX-TAR%20",
  "QX-TAR%20",
  "%ff",
  "..%2f..%2fetc",
  "1e999",
  "-1",
  "99999999999999999999",
  "NaN",
  "'%20or%201=1",
  "x".repeat(3000),
  "sha256:0",
  "%F0%9F%9B%A9",
  "%ED%A0%80",
];

function elsewhere(random: Random): Attack {
  const dice = random();
  const json = (path: string, body: string, method = "POST"): Attack => ({
    method,
    path,
    type: "application/json",
    body,
  });
  if (dice < 0.2) return json(`/api/v1/lists/${contentHash(list)}`, mutated(list, random), "PUT");
  if (dice < 0.4) {
    const file = scenarioFiles[Math.floor(random() * scenarioFiles.length)];
    return json("/api/v1/files?check=true", mutated(file, random));
  }
  if (dice < 0.55) return json("/api/v1/pump/deliveries", mutated(PUMP, random));
  if (dice < 0.6) return json("/api/v1/monitor/x/do", mutated({ step: "idle" }, random));
  if (dice < 0.75) {
    const body = torn(random() < 0.5 ? table : table.replace(/,L,/g, ",__proto__,"), random);
    return { method: "POST", path: "/api/v1/fuel-log", type: "text/csv", body };
  }
  const path =
    (PATHS[Math.floor(random() * PATHS.length)] ?? "/") + (BITS[Math.floor(random() * BITS.length)] ?? "");
  return { method: "GET", path };
}

function nextAttack(random: Random, opened: string[]): Attack {
  const dice = random();
  if (dice < 0.6) return batch(random, opened);
  if (dice < 0.7) {
    const { good: _good, body = "", ...rest } = batch(random, []);
    return { ...rest, body: torn(String(body), random) };
  }
  return elsewhere(random);
}

const AT_ONCE = 6;
const MAX_MS = 40_000;

/** Sends hostile requests to the real server concurrently, and measures its latency. Deterministic per seed. */
export async function fuzz(count: number, seed: number): Promise<FuzzOutcome> {
  const server = new ServerProcess();
  await server.start();
  const random = seededRandom(seed);
  const opened: string[] = [];
  const outcome: FuzzOutcome = {
    requests: 0,
    byStatus: {},
    troubles: [],
    goodSent: 0,
    goodLost: [],
    neighbour: { median: 0, most: 0 },
  };
  const taken: PreflightEvent[] = [];
  const waits: number[] = [];
  let running = true;
  const neighbour = (async () => {
    while (running && server.alive) {
      const from = performance.now();
      await fetch(`${server.url}/api/v1/pump`).then(
        (answer) => answer.arrayBuffer(),
        () => undefined,
      );
      waits.push(performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, 15));
    }
  })();
  const one = async () => {
    const attack = nextAttack(random, opened);
    outcome.requests++;
    const what = `${attack.method} ${attack.path.slice(0, 80)}`;
    try {
      const answer = await fetch(server.url + attack.path, {
        method: attack.method,
        ...(attack.body !== undefined && { body: attack.body as BodyInit }),
        headers: { "cravix-crew": "yuki", ...(attack.type && { "content-type": attack.type }) },
        signal: AbortSignal.timeout(MAX_MS),
      });
      outcome.byStatus[answer.status] = (outcome.byStatus[answer.status] ?? 0) + 1;
      const text = await answer.text();
      if (answer.status >= 500) outcome.troubles.push(`${what}: ${answer.status} ${text.slice(0, 200)}`);
      if (!attack.good) return;
      outcome.goodSent += attack.good.length;
      const refused = new Map<string, string>(
        answer.status === 200
          ? (JSON.parse(text).refused as { id: string; reason: string }[]).map((r) => [r.id, r.reason])
          : attack.good.map((event) => [event.id, `${answer.status} ${text.slice(0, 120)}`]),
      );
      for (const event of attack.good)
        if (refused.has(event.id)) outcome.goodLost.push(`${event.type}: ${refused.get(event.id)}`);
        else taken.push(event);
    } catch (error) {
      outcome.troubles.push(`${what}: ${(error as Error).message}`);
    }
  };
  const lanes = Array.from({ length: AT_ONCE }, async () => {
    while (outcome.requests < count && server.alive) await one();
  });
  await Promise.all(lanes);
  running = false;
  await neighbour;
  // Everything accepted is on record, unchanged.
  const walks = [...new Set(taken.map((event) => event.streamId))];
  for (const id of walks.slice(0, 400)) {
    const answer = await fetch(`${server.url}/api/v1/preflights/${id}`);
    const { events = [] } = (await answer.json()) as { events?: PreflightEvent[] };
    const known = new Map(events.map((event) => [event.id, JSON.stringify(event.data)]));
    for (const event of taken.filter((e) => e.streamId === id))
      if (known.get(event.id) !== JSON.stringify(event.data))
        outcome.goodLost.push(`${event.type}: not recorded`);
  }
  waits.sort((a, b) => a - b);
  outcome.neighbour = { median: waits[Math.floor(waits.length / 2)] ?? 0, most: waits.at(-1) ?? 0 };
  if (!server.alive) outcome.troubles.push(`the server stopped: ${server.said.slice(-400)}`);
  await server.remove();
  return outcome;
}
