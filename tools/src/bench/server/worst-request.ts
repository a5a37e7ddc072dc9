import { Worker } from "node:worker_threads";
import { contentHash, newId } from "@cravix/contract";
import { composeList } from "@cravix/core";
import { qxTar, tarrow4 } from "@cravix/demo";
import { ServerProcess } from "../../robustness/server-process";
import { type Figure, quantile, within } from "../figure";
import { so } from "../size";

const ROUNDS = so(4, 1);
/** The first round is a warm-up, if there is another. */
const WARM_UP = so(1, 0);
const BYTES = so(1024 * 1024, 64 * 1024);
const EVENTS = so(500, 40);

/** Invalid events of maximum size. */
function badEvents(): string {
  const event = {
    id: newId(Date.now()),
    type: "item.answered",
    streamId: newId(Date.now()),
    deviceId: newId(0),
    crewId: "ines",
    at: new Date().toISOString(),
    data: { itemId: "a", outcome: "checked", value: "x".repeat(7900), more: { and: { more: [1, 2, 3] } } },
  };
  return JSON.stringify({ events: Array.from({ length: EVENTS }, () => event) });
}

/** The most expensive requests within the limits. */
function worst(): { name: string; method: string; path: string; type: string; body: string }[] {
  const json = (name: string, path: string, body: string, method = "POST") => ({
    name,
    method,
    path: `/api/v1${path}`,
    type: "application/json",
    body,
  });
  const items = Array.from({ length: so(5000, 500) }, (_, i) => ({
    ...tarrow4.items[0],
    id: `i${i}`,
    station: [],
    why: "w".repeat(900),
  }));
  const list = composeList({ type: tarrow4, aircraft: qxTar, conditions: [], openDiscrepancies: [] });
  const long = {
    ...list,
    items: Array.from({ length: so(6000, 300) }, (_, i) => ({ ...list.items[0], id: `i${i}` })),
  };
  const brackets = "[".repeat(2 * BYTES);
  const lines = Array.from(
    { length: so(59_000, 2000) },
    (_, i) => `2026-01-01,QX-TAR,uplift,left,${i % 70},L,${i},100LL,r${i}`,
  );
  const start = (id: string) => ({
    id,
    type: "preflight.started",
    streamId: id,
    deviceId: id,
    crewId: "ines",
    at: new Date().toISOString(),
    data: { registration: "QX-TAR", listHash: `sha256:${"0".repeat(64)}`, conditions: [] },
  });
  return [
    json("500 invalid events", "/events", badEvents()),
    json("only nested brackets", "/events", `${brackets}${brackets.replaceAll("[", "]")}`),
    json(
      "an aircraft type with 5,000 invalid items",
      "/files?check=true",
      JSON.stringify({ ...tarrow4, items }),
    ),
    json("a checklist of 6,000 items", `/lists/${contentHash(long)}`, JSON.stringify(long), "PUT"),
    json("a checklist as PDF", "/lists/pdf", JSON.stringify(long)),
    json(
      "500 preflights in one batch",
      "/events",
      JSON.stringify({ events: Array.from({ length: EVENTS }, () => start(newId(Date.now()))) }),
    ),
    {
      name: "a CSV file of 59,000 lines",
      method: "POST",
      path: "/api/v1/fuel-log",
      type: "text/csv",
      body: `time,registration,entry,tank,amount,unit,hours,grade,receipt\n${lines.join("\n")}\n`,
    },
  ];
}

/** Sends from a separate thread, so that sending megabytes does not count. */
const SENDER = `
  const { parentPort } = require("node:worker_threads");
  parentPort.on("message", async ({ url, method, type, body }) => {
    await fetch(url, { method, headers: { "content-type": type }, body }).then((answer) => answer.arrayBuffer());
    parentPort.postMessage("done");
  });`;

/** Latency of a small request during the most expensive ones, compared with an idle server. */
export async function worstRequest(): Promise<Figure[]> {
  const server = new ServerProcess();
  await server.start();
  const ask = async () => (await fetch(`${server.url}/api/v1/pump`)).arrayBuffer();
  /** The server may have closed an idle connection meanwhile: reopen it before measuring. */
  const reconnect = () => ask().catch(() => ask());
  const probe = async (until: () => boolean): Promise<number[]> => {
    const waits: number[] = [];
    do {
      const from = performance.now();
      await ask();
      waits.push(performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, 4));
    } while (!until());
    return waits;
  };
  const sender = new Worker(SENDER, { eval: true });
  const rest: number[] = [];
  const beside = new Map<string, number[]>();
  for (let round = 0; round < ROUNDS; round++) {
    await reconnect();
    const over = performance.now() + so(2000, 200);
    const quiet = await probe(() => performance.now() > over);
    if (round >= WARM_UP) rest.push(...quiet);
    for (const { name, method, path, type, body } of worst()) {
      await reconnect();
      let done = false;
      sender.once("message", () => {
        done = true;
      });
      sender.postMessage({ url: server.url + path, method, type, body });
      const waits = await probe(() => done);
      if (round >= WARM_UP) beside.set(name, [...(beside.get(name) ?? []), ...waits]);
    }
  }
  await sender.terminate();
  await server.remove();
  return [...beside].map(([name, waits]) =>
    within(
      `longest delay of a small request during: ${name}`,
      Math.max(...waits),
      "ms",
      quantile(rest, 0.99),
      100,
    ),
  );
}
