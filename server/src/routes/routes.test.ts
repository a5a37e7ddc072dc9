import { contentHash } from "@cravix/contract";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import { airfield, qxTar, rules, tarrow4, trainerHistory } from "@cravix/demo";
import pino from "pino";
import { eventWriter, smallPreflight } from "../../testing/make-events";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { createApp } from "../app";
import { openDatabase } from "../db/database";
import { acceptEvents } from "../events/accept-events";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  const { events } = trainerHistory(NOW);
  for (let i = 0; i < events.length; i += 500)
    await acceptEvents(app.database.db, events.slice(i, i + 500), HOME);
});
afterAll(() => app.close());

const get = async (path: string) => {
  const response = await app.request(path);
  return { status: response.status, body: await response.json() };
};

test("the fleet names all six aircraft, the last flown first, and who may fly", async () => {
  const { body } = await get("/api/v1/aircraft");
  expect(body.aircraft.map((a: { registration: string }) => a.registration)).toEqual([
    "QX-TAR",
    "QX-ANS",
    "QX-COR",
    "QX-DOV",
    "QX-HLD",
    "QX-LUM",
  ]);
  expect(body.aircraft.every((a: { stub: string | null }) => a.stub === null)).toBe(true);
  expect(body.aircraft[0]).toMatchObject({ registration: "QX-TAR", stub: null, openDiscrepancies: 1 });
  expect(body.aircraft[0].lastPreflight.verdict).toBe("go with notes");
  expect(body.crew).toHaveLength(5);
});

test("an aircraft comes with its list, what is open, and what was read last", async () => {
  const { body } = await get("/api/v1/aircraft/QX-TAR");
  expect(body.type.items.length).toBeGreaterThanOrEqual(45);
  expect(body.openDiscrepancies).toEqual([
    expect.objectContaining({ stationId: "right-gear", measure: "4 mm" }),
  ]);
  const keys = body.lastReadings.map((r: { key: string }) => r.key);
  expect(keys).toEqual(expect.arrayContaining(["oil.level", "magneto.base", "fuel.dip.left"]));
  expect(new Set(keys).size).toBe(keys.length);
  expect((await get("/api/v1/aircraft/QX-NON")).status).toBe(404);
  expect((await get("/api/v1/aircraft/QX-NON/discrepancies")).status).toBe(404);
});

test("preflights come in pages, newest first, each once", async () => {
  const seen: string[] = [];
  let before = "";
  for (let page = 0; page < 10; page++) {
    const { body } = await get(
      `/api/v1/preflights?registration=QX-TAR&limit=5${before && `&before=${before}`}`,
    );
    seen.push(...body.items.map((p: { id: string }) => p.id));
    if (!body.next) break;
    before = body.next;
  }
  expect(seen).toHaveLength(16);
  expect([...seen].sort().reverse()).toEqual(seen);
  expect((await get("/api/v1/preflights?limit=0")).status).toBe(422);
});

test("a mechanic's sign-off is no walk, and does not stand among them", async () => {
  const { write, streamId } = eventWriter("kofi");
  await acceptEvents(
    app.database.db,
    [write("discrepancy.closed", { discrepancyId: streamId, how: "looked at" })],
    HOME,
  );
  expect((await get(`/api/v1/preflights/${streamId}`)).status).toBe(200);
  const { body } = await get("/api/v1/preflights?limit=100");
  expect(body.items.map((p: { id: string }) => p.id)).not.toContain(streamId);
});

test("a checklist is kept under its own hash and no other", async () => {
  const list = composeList({
    type: tarrow4,
    aircraft: qxTar,
    conditions: [],
    openDiscrepancies: [],
    airfield,
    rules,
  });
  const hash = contentHash(list);
  expect((await app.request(`/api/v1/lists/${hash}`, list, "PUT")).status).toBe(204);
  expect((await get(`/api/v1/lists/${hash}`)).body).toEqual(JSON.parse(JSON.stringify(list)));
  const wrong = await app.request(`/api/v1/lists/${hash}`, { ...list, year: 1 }, "PUT");
  expect(wrong.status).toBe(422);
});

test("a file that is not valid is rejected with each fault's path, and changes nothing", async () => {
  const before = await app.count("aircraft_type");
  const broken = {
    ...tarrow4,
    id: "broken",
    name: 7,
    items: [{ ...tarrow4.items[0], station: "nowhere", miss: "maybe" }],
  };
  const response = await app.request("/api/v1/files", broken);
  expect(response.status).toBe(422);
  const { faults } = await response.json();
  expect(faults.map((f: { path: string }) => f.path)).toEqual(
    expect.arrayContaining(["name", "items[0].miss"]),
  );
  expect((await app.request("/api/v1/files", "{")).status).toBe(422);
  expect(await app.count("aircraft_type")).toBe(before);
});

test("an aircraft file is added, and one whose type is unknown is reported which to add first", async () => {
  expect((await app.request("/api/v1/files", { ...qxTar, registration: "QX-TWO" })).status).toBe(201);
  expect((await get("/api/v1/aircraft/QX-TWO")).body.aircraft.registration).toBe("QX-TWO");
  const orphan = await app.request("/api/v1/files", { ...qxTar, registration: "QX-ORP", typeId: "nothing" });
  expect(orphan.status).toBe(409);
  expect((await orphan.json()).faults[0].path).toBe("typeId");
});

test("health is 200 only when the database answers", async () => {
  expect((await get("/api/health")).status).toBe(200);
  const nowhere = openDatabase({ host: "127.0.0.1", port: 1, user: "x", password: "", database: "x" });
  const blind = createApp({ database: nowhere, logger: pino({ level: "silent" }) });
  const health = await blind.request("/api/health");
  expect(health.status).toBe(503);
  expect(health.headers.get("content-type")).toContain("application/problem+json");
  const { events } = smallPreflight();
  const taken = await blind.request("/api/v1/events", {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events }),
  });
  expect(taken.status).toBe(503);
  await nowhere.close();
});

test("what is nowhere is a problem document too", async () => {
  const { status, body } = await get("/api/v1/nothing");
  expect(status).toBe(404);
  expect(body).toMatchObject({
    status: 404,
    title: "Not found",
    detail: "Nothing found at this address.",
  });
});
