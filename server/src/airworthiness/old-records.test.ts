import { newId } from "@cravix/contract";
import { airworthinessFiles } from "@cravix/demo";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { toDb } from "../db/moment";
import { writeFile } from "../fleet/write-file";
import { endHeavyWork } from "../worker-pool/run-in-worker";

/** A database as earlier versions may have left it: rows that would be refused today. */
let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  for (const file of airworthinessFiles(NOW))
    await writeFile(app.database.db, file, { groupId: HOME.groupId, by: "operator" });
  const insert = (table: string, row: object) =>
    app.database.pool.query(`INSERT INTO ${table} SET ?`, [
      Object.fromEntries(
        Object.entries(row).map(([column, value]) => [
          column,
          typeof value === "object" && value !== null ? JSON.stringify(value) : value,
        ]),
      ),
    ]);
  const id = () => newId(NOW.getTime());
  const base = { group_id: HOME.groupId, registration: "QX-TAR" };
  const source = { kind: "rule", text: "release", example: true };
  const work = (item: string, date: string, more: object = {}) =>
    insert("work_done", {
      ...base,
      id: id(),
      place: 0,
      item,
      done_on: date,
      work: { item, date, totals: {} },
      ...more,
    });
  await work("hundred", "2026-04-01");
  await work("annual", "2199-12-01");
  await work("oil", "not a date");
  for (const meter of ["bananas", "constructor", ""]) {
    const leaves = {
      id: `leak by ${meter}`,
      name: "Leak check",
      kind: "condition",
      limits: [{ by: "reading", meter, at: 4240 }],
      once: true,
      miss: "stop",
      source,
    };
    await work(leaves.id, "2026-04-01", { work: null, leaves });
  }
  const component = { id: "above", name: "Propeller", kind: "propeller", sinceNew: { hours: 10 } };
  const overhaul = {
    id: "overhaul of it",
    name: "Overhaul",
    kind: "overhaul",
    of: "above",
    limits: [{ by: "meter", meter: "hours", every: 2000 }],
    miss: "stop",
    source,
  };
  const move = { ...base, at: toDb(NOW.toISOString()), component: "above" };
  const as = { component, items: [overhaul], works: [] };
  await insert("component_move", { ...move, id: id(), fitted: 1, totals: { hours: 43_201 }, as_it_is: as });
  await insert("component_move", {
    ...move,
    id: id(),
    fitted: 1,
    totals: {},
    as_it_is: { ...as, component: { ...component, id: "empty", sinceNew: {} } },
  });
  await insert("component_move", { ...move, id: id(), fitted: 0, component: "engine", totals: { hours: 1 } });
  await insert("component_move", { ...move, id: id(), fitted: 0, component: "nothing", totals: {} });
  for (const on of ["2206-05-01T10:00:00.000Z", "9999-12-31T23:59:59.999Z"])
    await insert("flight_log", {
      ...base,
      id: id(),
      stream_id: id(),
      off_at: "2026-04-01 10:00:00.000",
      on_at: toDb(on),
      pilot: "ines",
      logged_by: "ines",
      line: {
        registration: "QX-TAR",
        from: "a",
        to: "b",
        off: on,
        on,
        pilot: "ines",
        meters: { hours: { out: 1, in: 0 }, bananas: { out: 0, in: 1 } },
        counts: { landings: 1, constructor: 1 },
      },
    });
  await insert("person_entry", {
    group_id: HOME.groupId,
    person_id: "ines",
    entry: id(),
    kind: "work",
    event_id: id(),
    body: { item: "medical", date: "2199-12-31" },
  });
  await insert("workshop_plan", {
    group_id: HOME.groupId,
    id: id(),
    at: toDb(NOW.toISOString()),
    crew_id: "yuki",
    body: { closed: [{ from: "x", to: "y" }], visits: [{ registration: "QX-GONE", date: "z", items: [] }] },
  });
});
afterAll(async () => {
  await endHeavyWork();
  await app.close();
});

test.each([
  "/aircraft",
  "/aircraft/QX-TAR",
  "/aircraft/QX-HLD",
  "/discrepancies?state=all",
  "/preflights",
  "/workshop",
  "/workshop/plan.csv",
  "/workshop/plan.ics",
  "/people/ines/due",
  "/aircraft/QX-TAR/flights",
  "/aircraft/QX-TAR/flights.csv",
  "/aircraft/QX-TAR/flights.pdf",
  "/aircraft/QX-TAR/releases",
  "/aircraft/QX-TAR/fuel-log",
  "/aircraft/QX-TAR/oil-log.csv",
])("%s is served", async (path) => {
  const answer = await app.request(`/api/v1${path}`, undefined, "GET", { "cravix-crew": "ines" });
  expect(answer.status).toBe(200);
  expect((await answer.text()).length).toBeGreaterThan(0);
});

test("what cannot be calculated says so at its place, and everything else is judged", async () => {
  const { aircraft } = await (await app.request("/api/v1/aircraft")).json();
  const own = aircraft.find(({ registration }: { registration: string }) => registration === "QX-TAR");
  const texts = own.papers.map(({ text }: { text: string }) => text) as string[];
  expect(texts.filter((text) => text.includes("Cannot be calculated"))).toEqual(
    expect.arrayContaining([
      expect.stringMatching(
        /^100-hour inspection: Cannot be calculated\. The work of 2026-04-01 has no hours reading/,
      ),
      expect.stringMatching(/^Leak check: Cannot be calculated\. The total of bananas is not known/),
      expect.stringMatching(/^Overhaul: Cannot be calculated\. Propeller was fitted at 43,201\.0/),
    ]),
  );
  expect(texts.length).toBeLessThan(20);
  const table = await (await app.request("/api/v1/workshop/plan.csv")).text();
  expect(table).toContain("QX-TAR,100-hour inspection: cannot be calculated. The work of 2026-04-01");
  const { shelf } = await (await app.request("/api/v1/workshop")).json();
  expect(shelf).toEqual([
    expect.objectContaining({
      component: expect.objectContaining({ id: "QX-TAR.engine" }),
      from: "QX-TAR",
      problem: expect.stringContaining("Check"),
    }),
  ]);
});
