import { scenarioFiles } from "@cravix/demo";
import pino from "pino";
import { NOW, type TestApp, testApp } from "../../testing/test-app";
import { createApp } from "../app";
import { openDatabase } from "../db/database";
import { endHeavyWork } from "../worker-pool/run-in-worker";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(async () => {
  await endHeavyWork();
  await app.close();
});

test("a burst of heavy requests is answered or put off, and nothing is left over that ends the process", async () => {
  const uncaught: unknown[] = [];
  const note = (error: unknown) => uncaught.push(error);
  process.on("unhandledRejection", note);
  const answers = await Promise.all(
    Array.from({ length: 60 }, () => app.request("/api/v1/workshop/plan.ics")),
  );
  const statuses = answers.map(({ status }) => status);
  expect(new Set(statuses)).toEqual(new Set(statuses.includes(503) ? [200, 503] : [200]));
  expect(statuses.filter((status) => status === 200).length).toBeGreaterThan(10);
  for (const answer of answers)
    if (answer.status === 503) expect(answer.headers.get("retry-after")).toBe("2");
  expect((await app.request("/api/v1/workshop/plan.ics")).status).toBe(200);
  process.off("unhandledRejection", note);
  expect(uncaught).toEqual([]);
}, 120_000);

test("of several saves based on one version exactly one succeeds, the others are told", async () => {
  const file = scenarioFiles.find(
    (one) => one.format === "cravix.aircraft/2" && one.registration === "QX-TAR",
  ) as object;
  const { aircraft } = await (await app.request("/api/v1/aircraft/QX-TAR")).json();
  const { contentHash } = await import("@cravix/contract");
  const basis = contentHash(aircraft);
  const answers = await Promise.all(
    Array.from({ length: 16 }, (_, i) => app.saveFile({ ...file, story: `Save ${i}` }, basis)),
  );
  expect(answers.map(({ status }) => status).sort()).toEqual([201, ...Array(15).fill(412)]);
});

test("a HEAD request frees what its GET would stream", async () => {
  for (let i = 0; i < 30; i++) {
    const answer = await app.request("/api/v1/monitor/stream?registration=QX-TAR&speed=1", undefined, "HEAD");
    expect(answer.status).toBe(200);
  }
  expect(
    (await app.request("/api/v1/monitor/stream?registration=QX-TAR&speed=1", undefined, "HEAD")).status,
  ).toBe(200);
});

test("without a database every address answers 503, and the log repeats nothing that was sent", async () => {
  const lines: string[] = [];
  const logger = pino({ level: "debug" }, { write: (line) => lines.push(line) });
  const database = openDatabase({
    ...JSON.parse(process.env.CRAVIX_TEST_DATABASE ?? "{}"),
    database: "gone",
  });
  await database.close();
  const broken = createApp({ database, logger, clock: () => NOW });
  const headers = { "content-type": "application/json", "cravix-crew": "ines" };
  const ask = async (path: string, method = "GET", body?: string) =>
    (await broken.request(`/api/v1${path}`, { method, headers, ...(body && { body }) })).status;
  const hash = `sha256:${"a".repeat(64)}`;
  const statuses = await Promise.all([
    ask("/aircraft"),
    ask("/aircraft/QX-TAR"),
    ask("/discrepancies"),
    ask("/preflights"),
    ask("/workshop"),
    ask("/workshop/plan.csv"),
    ask("/people/ines/due"),
    ask("/aircraft/QX-TAR/flights"),
    ask("/aircraft/QX-TAR/flights.pdf"),
    ask("/aircraft/QX-TAR/fuel-log"),
    ask(`/photographs/${hash}`),
    ask(`/lists/${hash}`),
    ask("/events", "POST", JSON.stringify({ events: [{ type: "secret words" }] })),
    ask("/files", "POST", JSON.stringify(scenarioFiles[0])),
    ask(`/lists/${hash}`, "PUT", '{"secret words": 1}'),
  ]);
  expect(statuses).toEqual(statuses.map(() => 503));
  expect(lines.join("\n")).not.toContain("secret words");
});

test.each([
  "constructor",
  "__proto__",
  "toString",
  "hasOwnProperty",
])("a parameter called %s is ignored or refused, never an error of the server", async (name) => {
  for (const path of [
    "/aircraft",
    "/aircraft/QX-TAR/flights",
    "/aircraft/QX-TAR/fuel-log",
    "/preflights",
    "/discrepancies",
    "/monitor/run-up.csv?registration=QX-TAR",
    "/weather/QXMP",
    "/workshop",
    `/aircraft/${name}`,
    `/aircraft/${name}/flights`,
    `/files/${name}/${name}/versions`,
    `/people/${name}/due`,
    `/preflights/${name}`,
  ]) {
    const answer = await app.request(`/api/v1${path}${path.includes("?") ? "&" : "?"}${name}=1`);
    expect([path, answer.status < 500]).toEqual([path, true]);
  }
});
