import { createHash } from "node:crypto";
import { Worker } from "node:worker_threads";
import { contentHash, newId } from "@cravix/contract";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import { qxTar, tarrow4 } from "@cravix/demo";
import sharp from "sharp";
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

/** Requests sent at the same time. */
interface Burden {
  name: string;
  method: string;
  type: string;
  requests: { path: string; body: string | Uint8Array }[];
  /** Expected answer: another one would mean that the work was not done. */
  status: number;
  /** Longest acceptable delay of a small request meanwhile, in ms. */
  aim?: number;
}

const event = (type: string, streamId: string, data: object, id = newId(Date.now())) => ({
  id,
  type,
  streamId,
  deviceId: streamId,
  crewId: "ines",
  at: new Date().toISOString(),
  data,
});

const PHOTOGRAPHS = 6;
/** Pixels of an edge: almost the greatest size that the server takes. */
const EDGE = so(7600, 800);
let shade = 0;

/** Largest photos, each named by a discrepancy on record. PNG, because a JPEG can be decoded at reduced size. */
async function largestPhotographs(url: string): Promise<Burden> {
  const photographs = await Promise.all(
    Array.from({ length: PHOTOGRAPHS }, async () => {
      const background = { r: shade++ % 256, g: 90, b: 40 };
      const picture = sharp({ create: { width: EDGE, height: EDGE, channels: 3, background } });
      const body = await picture.png().toBuffer();
      return { body, hash: `sha256:${createHash("sha256").update(body).digest("hex")}` };
    }),
  );
  const stream = newId(Date.now());
  const events = photographs.flatMap(({ hash }) => {
    // Ids of one millisecond have no order, and the discrepancy comes before its photo.
    const id = newId(Date.now() - 1000);
    const found = { registration: "QX-TAR", stationId: "tail", text: "A mark", grade: "watch" };
    return [
      event("discrepancy.opened", stream, { discrepancyId: id, ...found }, id),
      event("discrepancy.photographed", stream, {
        discrepancyId: id,
        photograph: hash,
        width: 1600,
        height: 1600,
      }),
    ];
  });
  const answer = await fetch(`${url}/api/v1/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events }),
  });
  const { taken } = (await answer.json()) as { taken: number };
  if (taken !== events.length) throw new Error(`only ${taken} of ${events.length} events were accepted`);
  return {
    name: `${PHOTOGRAPHS} largest photos at once`,
    method: "PUT",
    type: "image/png",
    requests: photographs.map(({ hash, body }) => ({ path: `/api/v1/photographs/${hash}`, body })),
    status: 204,
    aim: 200,
  };
}

/** The most expensive single requests within the limits. */
function worst(): Burden[] {
  const json = (name: string, path: string, body: string, status: number, method = "POST"): Burden => ({
    name,
    method,
    type: "application/json",
    requests: [{ path: `/api/v1${path}`, body }],
    status,
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
  const start = (id: string) =>
    event(
      "preflight.started",
      id,
      { registration: "QX-TAR", listHash: `sha256:${"0".repeat(64)}`, conditions: [] },
      id,
    );
  return [
    json("500 invalid events", "/events", badEvents(), 200),
    json("only nested brackets", "/events", `${brackets}${brackets.replaceAll("[", "]")}`, 422),
    json(
      "an aircraft type with 5,000 invalid items",
      "/files?check=true",
      JSON.stringify({ ...tarrow4, items }),
      422,
    ),
    json("a checklist of 6,000 items", `/lists/${contentHash(long)}`, JSON.stringify(long), 204, "PUT"),
    json("a checklist as PDF", "/lists/pdf", JSON.stringify(long), 200),
    json(
      "500 preflights in one batch",
      "/events",
      JSON.stringify({ events: Array.from({ length: EVENTS }, () => start(newId(Date.now()))) }),
      200,
    ),
    {
      name: "a CSV file of 59,000 lines",
      method: "POST",
      type: "text/csv",
      requests: [
        {
          path: "/api/v1/fuel-log",
          body: `time,registration,entry,tank,amount,unit,hours,grade,receipt\n${lines.join("\n")}\n`,
        },
      ],
      status: 200,
    },
  ];
}

/** Sends from a separate thread, so that sending megabytes does not count. */
const SENDER = `
  const { parentPort } = require("node:worker_threads");
  parentPort.on("message", async ({ url, method, type, requests }) => {
    const headers = { "content-type": type, "cravix-crew": "ines" };
    const send = async ({ path, body }) => {
      const answer = await fetch(url + path, { method, headers, body });
      const text = await answer.text();
      return { status: answer.status, text: text.slice(0, 300) };
    };
    parentPort.postMessage(await Promise.all(requests.map(send)));
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
  const beside = new Map<string, { waits: number[]; aim: number }>();
  for (let round = 0; round < ROUNDS; round++) {
    await reconnect();
    const over = performance.now() + so(2000, 200);
    const quiet = await probe(() => performance.now() > over);
    if (round >= WARM_UP) rest.push(...quiet);
    for (const { name, status, aim = 100, ...burden } of [...worst(), await largestPhotographs(server.url)]) {
      await reconnect();
      let answers: { status: number; text: string }[] | undefined;
      sender.once("message", (message) => {
        answers = message;
      });
      sender.postMessage({ url: server.url, ...burden });
      const waits = await probe(() => answers !== undefined);
      const wrong = answers?.find((answer) => answer.status !== status);
      if (wrong) throw new Error(`${name} was answered ${wrong.status}: ${wrong.text}`);
      if (round >= WARM_UP) beside.set(name, { waits: [...(beside.get(name)?.waits ?? []), ...waits], aim });
    }
  }
  await sender.terminate();
  await server.remove();
  return [...beside].map(([name, { waits, aim }]) =>
    within(
      `longest delay of a small request during: ${name}`,
      Math.max(...waits),
      "ms",
      quantile(rest, 0.99),
      aim,
    ),
  );
}
