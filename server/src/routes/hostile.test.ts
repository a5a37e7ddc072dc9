import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { contentHash, newId } from "@cravix/contract";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import { offeredConditions } from "@cravix/core/checklist/list/turnaround-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { airfield, group, qxTar, rules, tarrow4 } from "@cravix/demo";
import pino from "pino";
import { eventWriter, STARTED, smallPreflight } from "../../testing/make-events";
import { NOW, type TestApp, testApp } from "../../testing/test-app";
import { createApp } from "../app";
import { isOwnHost } from "../middleware/same-origin-only";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

const JSON_TYPE = { "content-type": "application/json" };
const send = async (body: string) => {
  const response = await app.request("/api/v1/events", body);
  return { status: response.status, body: await response.json() };
};
const nest = (levels: number, open: string, close: string) =>
  `${open.repeat(levels)}1${close.repeat(levels)}`;

describe("an event that no one sends in earnest", () => {
  const writer = eventWriter();
  const answer = () => writer.write("item.answered", { itemId: "tail.skid", outcome: "checked" });
  /** An event with one field as raw JSON, in a batch with a valid one. */
  const withField = async (path: string, raw: string) => {
    const good = answer();
    const bad = { ...answer(), data: { itemId: "tail.skid", outcome: "checked" } } as Record<string, unknown>;
    if (path.startsWith("data.")) (bad.data as Record<string, unknown>)[path.slice(5)] = "@@";
    else bad[path] = "@@";
    const text = JSON.stringify({ events: [good, bad] }).replace('"@@"', () => raw);
    const { status, body } = await send(text);
    expect(status).toBe(200);
    // The valid event is accepted.
    expect(body.taken).toBe(1);
    expect(body.refused).toHaveLength(1);
    return body.refused[0] as { field?: string; reason: string; id: string | null };
  };

  test.each([
    ["data.itemId", nest(100_000, "[", "]")],
    ["data.itemId", nest(100_000, '{"a":', "}")],
    ["type", nest(50_000, '{"type":', "}")],
    ["data", nest(1000, "[", "]")],
    ["id", nest(1000, "[", "]")],
    ["data.itemId", `"${"x".repeat(1_000_000)}"`],
    ["data.value", `[${"0,".repeat(200_000)}0]`],
  ])("%s of any depth or size is rejected, and the answer repeats nothing of it", async (path, raw) => {
    const refusal = await withField(path, raw);
    expect(JSON.stringify(refusal).length).toBeLessThan(400);
  });

  test.each([
    ["at", '"2026-02-30T10:00:00.000Z"'],
    ["at", '"2026-04-30T24:00:00.000Z"'],
    ["at", '"0000-01-01T00:00:00.000Z"'],
    ["at", '"1969-12-31T23:59:59.000Z"'],
    ["data.itemId", '"\\ud800"'],
    ["data.value", '"half \\udfff a character"'],
    ["data.itemId", '"\\u0000"'],
    ["data.itemId", '" tail.skid"'],
    ["data.itemId", '"tail.skid "'],
    ["data.outcome", '"__proto__"'],
    ["id", '"FFFFFFFF-ffff-7fff-bfff-ffffffffffff"'],
    ["id", '"ffffffff-ffff-7fff-bfff-ffffffffffff"'],
    ["crewId", '"ines "'],
    ["stream", '"flight"'],
    ["rules", "1"],
  ])("%s as %s is rejected with the field", async (path, raw) => {
    const { field = "", reason } = await withField(path, raw);
    // An unknown field is named.
    expect(`${field} ${reason}`).toContain(path.replace("data.", ""));
  });

  test.each([
    ["1e999", "US qt", "data.value"],
    ["-1e999", "US qt", "data.value"],
    ["5000", "m/s", "data.value"],
    ["99999999", "ft/min", "data.value"],
    ["1", "__proto__", "data.unit"],
    ["1", "constructor", "data.unit"],
  ])("a reading of %s %s is rejected at its field", async (value, unit, field) => {
    const event = writer.write("reading.taken", { itemId: "x", key: "x", value: 1, unit: "L" });
    const text = JSON.stringify({
      events: [{ ...event, data: { ...event.data, value: "@@", unit } }],
    }).replace('"@@"', value);
    expect((await send(text)).body.refused[0]).toMatchObject({ field });
  });

  test("an uplift that no light aircraft takes is rejected at its field", async () => {
    const event = writer.write("fuel.uplifted", {
      registration: "QX-TAR",
      amount: 4800,
      unit: "L",
      from: "typed",
    });
    expect((await send(JSON.stringify({ events: [event] }))).body.refused[0].field).toBe("data.amount");
  });

  test("more events than any walk has are rejected one by one, and the preflight stays readable", async () => {
    const walk = eventWriter();
    await send(JSON.stringify({ events: [walk.write("preflight.started", STARTED)] }));
    let refused = 0;
    for (let batch = 0; batch < 9; batch++) {
      const events = Array.from({ length: 500 }, (_, i) => ({
        ...walk.write("item.visited", { itemId: `i${i}` }),
        at: NOW.toISOString(),
      }));
      refused += (await send(JSON.stringify({ events }))).body.refused.length;
    }
    expect(refused).toBe(501);
    expect((await app.request(`/api/v1/preflights/${walk.streamId}`)).status).toBe(200);
  });
});

describe("a request of any size", () => {
  const bytesAsked = async (path: string, type: string) => {
    let pulled = 0;
    const chunk = new Uint8Array(256 * 1024).fill(0x20);
    const body = new ReadableStream({
      pull(controller) {
        pulled += chunk.length;
        if (pulled > 300 * 1024 * 1024) controller.close();
        else controller.enqueue(chunk);
      },
    });
    const api = createApp({ database: app.database, logger: pino({ level: "silent" }), clock: () => NOW });
    const response = await api.request(path, {
      method: "POST",
      headers: { "content-type": type },
      body,
      duplex: "half",
    } as RequestInit);
    return { status: response.status, pulled };
  };

  test.each([
    ["/api/v1/pump/deliveries", "application/json"],
    ["/api/v1/monitor/x/do", "application/json"],
    ["/api/v1/events", "application/json"],
    ["/api/v1/files", "application/json"],
    ["/api/v1/fuel-log", "text/csv"],
  ])("to %s is left long before its end", async (path, type) => {
    const { status, pulled } = await bytesAsked(path, type);
    expect(status).toBe(413);
    expect(pulled).toBeLessThan(10 * 1024 * 1024);
  });

  test("that is nothing but brackets is answered", async () => {
    for (const body of [
      "[".repeat(2_000_000),
      nest(1_000_000, "[", "]"),
      `{"events":${nest(500_000, "[", "]")}}`,
    ]) {
      const { status } = await send(body);
      expect([400, 422, 200]).toContain(status);
    }
  });
});

describe("files and tables", () => {
  test("five thousand bad items are reported as a hundred faults and a number", async () => {
    const items = Array.from({ length: 5000 }, (_, i) => ({ id: i, station: [], kind: "no", more: {} }));
    const response = await app.request("/api/v1/files", { ...tarrow4, items });
    expect(response.status).toBe(422);
    const { faults } = await response.json();
    expect(faults).toHaveLength(101);
    expect(faults.at(-1).expected).toMatch(/\d+ errors corrected; they are not shown/);
  }, 30_000);

  test("forty thousand short lines are read, and the faults of a bad table are counted, not listed", async () => {
    const head = "time,registration,entry,amount,unit\n";
    const response = await app.request("/api/v1/fuel-log", `${head}${"a\n".repeat(40_000)}`);
    const { taken, faults } = await response.json();
    expect(taken).toBe(0);
    expect(faults).toHaveLength(501);
    expect(faults.at(-1).expected).toContain("39500 errors corrected; they are not shown");
  }, 30_000);

  test.each([
    ["2026-02-30,QX-TAR,uplift,left,10,L,,,", "time"],
    ["2026-02-28T24:00:00Z,QX-TAR,uplift,left,10,L,,,", "time"],
    ["0001-01-01,QX-TAR,uplift,left,10,L,,,", "time"],
    ["2026-02-28,QX-TAR,uplift,left,1e999,L,,,", "amount"],
    ["2026-02-28,QX-TAR,uplift,left,0x10,L,,,", "amount"],
    ["2026-02-28,QX-TAR,uplift,left,10,__proto__,,,", "unit"],
    ["2026-02-28,__proto__,uplift,left,10,L,,,", "registration"],
    ["2026-02-28,QX-TAR,constructor,left,10,L,,,", "entry"],
    ["2026-02-28,QX-TAR,uplift,left,10,L,9999999,,", "hours"],
  ])("%s is rejected at its column", async (line, column) => {
    const response = await app.request(
      "/api/v1/fuel-log",
      `time,registration,entry,tank,amount,unit,hours,grade,receipt\n${line}\n`,
    );
    expect(response.status).toBe(200);
    const outcome = await response.json();
    expect([outcome.taken, outcome.faults[0].column]).toEqual([0, column]);
  });

  test("oil in a unit named like something of the language is rejected, not an error", async () => {
    const response = await app.request(
      "/api/v1/oil-log",
      "time,registration,entry,engine,amount,unit,hours,heat,grade\n2026-02-28,QX-TAR,added,,1,__proto__,,,\n",
    );
    expect([response.status, (await response.json()).faults[0].column]).toEqual([200, "unit"]);
  });

  test("a text that is no JSON is reported where, and nothing of it", async () => {
    const response = await app.request("/api/v1/files", '{"format": "secret words here');
    expect(response.status).toBe(422);
    expect(JSON.stringify(await response.json())).not.toContain("secret");
  });
});

describe("lists", () => {
  const list = composeList({
    type: tarrow4,
    aircraft: qxTar,
    conditions: [],
    openDiscrepancies: [],
    airfield,
    rules,
  });

  test("are checked before they are kept: one without stations is none, whatever its hash", async () => {
    for (const bad of [
      { ...list, stations: undefined },
      { ...list, items: [{ id: "a" }] },
      { ...list, items: [{ ...list.items[0], station: "nowhere" }] },
      { format: "cravix.list/2" },
    ]) {
      const response = await app.request(`/api/v1/lists/${contentHash(bad)}`, bad, "PUT");
      expect(response.status).toBe(422);
    }
    expect((await app.request(`/api/v1/lists/${contentHash(list)}`, list, "PUT")).status).toBe(204);
  });

  test("with an object where a limit should be are rejected at their place", async () => {
    const limit = { min: { toString: 1, valueOf: null }, max: { toString: 1 }, unit: "cm", source: {} };
    const items = [{ ...list.items[0], limit }, ...list.items.slice(1)];
    const response = await app.request(`/api/v1/lists/${contentHash(list)}`, { ...list, items }, "PUT");
    expect(response.status).toBe(422);
    const { faults } = await response.json();
    expect(faults.map((fault: { path: string }) => fault.path)).toContain("items[0].limit.min");
  });

  test("with a number beyond all numbers, even where no one looks, are rejected", async () => {
    const text = JSON.stringify({ ...list, more: "@@" }).replace('"@@"', "1e999");
    expect((await app.request(`/api/v1/lists/${contentHash(list)}`, text, "PUT")).status).toBe(422);
  });

  test("of every type, on any day, are taken as they are composed", async () => {
    for (const { aircraft, type } of group) {
      const day = composeList({
        type,
        aircraft,
        conditions: offeredConditions(type).filter((condition) => condition !== "turnaround"),
        openDiscrepancies: [
          {
            id: newId(0),
            stationId: "none",
            text: "x".repeat(2000),
            grade: "watch",
            openedAt: NOW.toISOString(),
            openedBy: "A",
          },
        ],
        airfield,
        rules,
        memory: { faults: ["a line"], hours: { value: 12, at: NOW.toISOString() } },
        seed: newId(0),
      });
      const response = await app.request(`/api/v1/lists/${contentHash(day)}`, day, "PUT");
      expect([type.name, response.status]).toEqual([type.name, 204]);
    }
  }, 30_000);

  test("one that was kept before lists were checked breaks its own walk only, with a sentence", async () => {
    const hash = `sha256:${"a".repeat(64)}`;
    await app.database.pool.query("INSERT INTO list (group_id, hash, body) VALUES ('home', ?, ?)", [
      hash,
      JSON.stringify({ format: "cravix.list/2", stations: 7, items: { length: 3 } }),
    ]);
    const { events, write, streamId } = smallPreflight();
    const [start, ...rest] = events;
    const signed = write("verdict.signed", { verdict: "go", decision: "fly", reasons: [] });
    const begun = { ...start, data: { ...STARTED, listHash: hash } } as PreflightEvent;
    await send(JSON.stringify({ events: [begun, ...rest, signed] }));
    const bundle = await app.request("/api/v1/aircraft/QX-TAR");
    expect(bundle.status).toBe(200);
    expect((await bundle.json()).walks.map((w: { preflightId: string }) => w.preflightId)).not.toContain(
      streamId,
    );
    const asked = await app.request(`/api/v1/lists/${hash}`);
    expect(asked.status).toBe(409);
    expect((await asked.json()).detail).toContain(
      "This checklist cannot be read. Its preflight remains on record",
    );
    expect((await app.request(`/api/v1/preflights/${streamId}`)).status).toBe(200);
  });
});

describe("rules and files", () => {
  test("rule sets are chosen by the name that the airfield or the aircraft gives, never by the alphabet", async () => {
    const other = { ...rules, id: "aaa-first", name: "First of the alphabet" };
    expect((await app.request("/api/v1/files", other)).status).toBe(201);
    const named = async () =>
      (await (await app.request("/api/v1/aircraft/QX-TAR")).json()).rules?.id as string | undefined;
    expect(await named()).toBe("example");
    await app.request("/api/v1/files", { ...qxTar, rules: "aaa-first" });
    expect(await named()).toBe("aaa-first");
    // Without a named rule set, none of several is chosen.
    const { rules: _named, ...silent } = airfield as typeof airfield & { rules?: string };
    await app.request("/api/v1/files", qxTar);
    await app.request("/api/v1/files", silent);
    expect(await named()).toBeUndefined();
    await app.request("/api/v1/files", airfield);
    expect(await named()).toBe("example");
  });

  test("every version of a file stays: who, when, and which was before", async () => {
    await app.database.pool.query(
      "INSERT INTO crew (group_id, id, name, role) VALUES ('home', 'kofi-é', 'Kofi É', 'mechanic')",
    );
    const first = { ...qxTar, registration: "QX-VER", story: "first" };
    const second = { ...first, story: "second" };
    const api = createApp({ database: app.database, logger: pino({ level: "silent" }), clock: () => NOW });
    const put = (file: object) =>
      api.request("/api/v1/files", {
        method: "POST",
        headers: { ...JSON_TYPE, "cravix-crew": encodeURIComponent("kofi-é") },
        body: JSON.stringify(file),
      });
    for (const file of [first, first, second]) expect((await put(file)).status).toBe(201);
    const versions = (await (await app.request("/api/v1/files/aircraft/QX-VER/versions")).json()).items;
    expect(versions).toEqual([
      {
        version: 2,
        hash: contentHash(second),
        before: contentHash(first),
        at: NOW.toISOString(),
        crewId: "kofi-é",
      },
      { version: 1, hash: contentHash(first), before: null, at: NOW.toISOString(), crewId: "kofi-é" },
    ]);
    const one = await app.request("/api/v1/files/aircraft/QX-VER/versions/1");
    expect(await one.json()).toEqual(first);
    expect((await app.request("/api/v1/files/aircraft/QX-VER/versions/9")).status).toBe(404);
  });
});

describe("only our own pages write", () => {
  const api = () =>
    createApp({ database: app.database, logger: pino({ level: "silent" }), clock: () => NOW });
  const post = (headers: Record<string, string>, path = "/api/v1/events") =>
    api().request(`http://localhost:8080${path}`, {
      method: "POST",
      headers,
      body: JSON.stringify({ events: [] }),
    });

  test("a page of another site, a form, a name that points here: all turned away", async () => {
    const host = "localhost:8080";
    expect((await post({ ...JSON_TYPE, host })).status).toBe(200);
    expect((await post({ ...JSON_TYPE, host, origin: "http://localhost:8080" })).status).toBe(200);
    for (const origin of [
      "http://evil.example",
      "http://localhost:9999",
      "null",
      "https://localhost.evil.example",
    ])
      expect((await post({ ...JSON_TYPE, host, origin })).status).toBe(403);
    expect((await post({ ...JSON_TYPE, host, "sec-fetch-site": "cross-site" })).status).toBe(403);
    for (const type of ["text/plain", "application/x-www-form-urlencoded", "multipart/form-data; boundary=x"])
      expect((await post({ host, "content-type": type })).status).toBe(415);
    for (const strange of ["rebound.example", "rebound.example:8080", "localhost.example"]) {
      expect((await post({ ...JSON_TYPE, host: strange })).status).toBe(421);
      const read = await api().request("/api/v1/aircraft", { headers: { host: strange } });
      expect(read.status).toBe(421);
    }
  });

  test("this machine is called by its own name, by an address, or as it was told", () => {
    for (const host of ["localhost", "localhost:8080", "127.0.0.1:80", "192.168.1.7:8080", "[::1]:8080"])
      expect(isOwnHost(host, [])).toBe(true);
    expect(isOwnHost("club.example:443", [])).toBe(false);
    expect(isOwnHost("club.example:443", ["club.example"])).toBe(true);
  });

  test("the policy lets no other base and no other target of a form in", async () => {
    const policy = (await api().request("/api/health")).headers.get("content-security-policy") ?? "";
    expect(policy).toContain("base-uri 'none'");
    expect(policy).toContain("form-action 'self'");
  });
});

test("a chunk that is not here is not here, and no page in its place", async () => {
  const webRoot = mkdtempSync(join(tmpdir(), "cravix-web-"));
  writeFileSync(join(webRoot, "index.html"), "<html>the page</html>");
  const site = createApp({ database: app.database, logger: pino({ level: "silent" }), webRoot });
  expect((await site.request("/preflight/some-id/verdict")).status).toBe(200);
  for (const path of ["/_expo/static/js/web/entry-0.js", "/_expo/gone", "/assets/font.ttf", "/sw.js"])
    expect((await site.request(path)).status).toBe(404);
});

test("addresses that cannot be are nowhere: padded, of other letters, of other sorts", async () => {
  const { streamId, events } = smallPreflight();
  await send(JSON.stringify({ events }));
  expect((await app.request(`/api/v1/preflights/${streamId}`)).status).toBe(200);
  for (const path of [
    `/api/v1/preflights/${streamId}%20`,
    `/api/v1/preflights/${streamId.toUpperCase()}`,
    "/api/v1/preflights/1",
    "/api/v1/aircraft/QX-TAR%20",
    "/api/v1/aircraft/__proto__",
    "/api/v1/lists/sha256:0",
  ])
    expect([path, (await app.request(path)).status]).toEqual([path, 404]);
});
