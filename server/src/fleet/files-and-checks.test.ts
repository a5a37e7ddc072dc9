import type { AircraftRecord } from "@cravix/core/airworthiness/aircraft-record";
import { airworthinessFiles, crew, loadingFiles, qxTar, rules, scenarioFiles, tarrow4 } from "@cravix/demo";
import { eventMaker } from "../../testing/event-maker";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { acceptEvents } from "../events/accept-events";
import { checkProjections, rebuildOutdated } from "../events/check-projections";
import { writeFile } from "./write-file";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  for (const file of [...airworthinessFiles(NOW), ...loadingFiles])
    await writeFile(app.database.db, file, { groupId: HOME.groupId, by: "operator" });
});
afterAll(() => app.close());

const send = async (file: object, crewId: string) =>
  app.request("/api/v1/files", file, "POST", { "cravix-crew": crewId });
const record = () =>
  structuredClone(
    airworthinessFiles(NOW).find((file) => file.registration === "QX-TAR"),
  ) as unknown as AircraftRecord;
const made = eventMaker(NOW.getTime() - 3_600_000);

describe("a file is saved only by who may", () => {
  const loading = loadingFiles[0] as (typeof loadingFiles)[number];
  const airfield = scenarioFiles.find(({ format }) => format === "cravix.airfield/1") as object;
  test.each<[string, object, string[]]>([
    ["people", { ...crew, members: [...crew.members] }, ["yuki"]],
    ["a rule set", rules, ["yuki"]],
    ["a type", tarrow4, ["kofi", "yuki"]],
    ["an aircraft", { ...qxTar, story: "Changed" }, ["kofi", "yuki"]],
    ["added items", { ...qxTar, story: "Changed", ownItems: [] }, ["kofi", "yuki", "maren"]],
    ["a take-off mass", { ...loading, datum: "changed" }, ["kofi", "yuki"]],
    ["an airworthiness record", record(), ["kofi", "yuki"]],
    ["an airfield", { ...airfield, name: "Changed" }, ["kofi", "yuki", "maren"]],
  ])("%s", async (_what, file, may) => {
    for (const who of ["", "nobody", ...crew.members.map(({ id }) => id)]) {
      const { status } = await send(file, who);
      expect([who, status]).toEqual([who, may.includes(who) ? 201 : 403]);
    }
  });

  test("people are an administrator's as soon as there is one", async () => {
    const members = [...crew.members, { id: "ada", name: "Ada Ilves", role: "administrator" }];
    expect((await send({ ...crew, members }, "yuki")).status).toBe(201);
    expect((await send(crew, "yuki")).status).toBe(403);
    expect((await send(crew, "ada")).status).toBe(201);
    await app.database.pool.query("DELETE FROM crew WHERE id = 'ada'");
  });
});

describe("a record file that contradicts what is on record is refused", () => {
  const refusal = async (file: AircraftRecord) => {
    const answer = await send(file, "kofi");
    return [answer.status, (await answer.json()).faults?.[0]?.expected ?? ""];
  };

  test("a component fitted above the aircraft's hours", async () => {
    const file = record();
    file.fittings = [
      {
        component: "engine",
        registration: "QX-TAR",
        on: { at: "2026-04-01T10:00:00.000Z", totals: { hours: 43_201 } },
      },
    ];
    expect(await refusal(file)).toEqual([409, expect.stringContaining("Engine was fitted at 43,201.0")]);
  });

  test("a limit by a meter that earlier works did not read", async () => {
    const registration = "QX-TAR";
    await acceptEvents(
      app.database.db,
      [
        made("work.released", {
          registration,
          date: "2026-05-01",
          done: "Tyres changed.",
          readings: { landings: 10_000 },
          works: [{ item: "tyres", date: "2026-05-01", totals: {} }],
          closes: [],
          leaves: [
            {
              id: "leak",
              name: "Leak check",
              kind: "condition",
              limits: [{ by: "reading", meter: "landings", at: 10_200 }],
              once: true,
              miss: "stop",
              source: { kind: "rule", text: "release", example: true },
            },
          ],
          certificate: { kind: "A&P", number: "1" },
        }),
      ],
      HOME,
    );
    const file = record();
    const tyres = file.items.find(({ id }) => id === "tyres");
    if (!tyres) throw new Error("the demo has no tyres");
    tyres.limits = [{ by: "meter", meter: "hours", every: 300 }];
    file.works = file.works.map((work) =>
      work.item === "tyres" ? { ...work, totals: { ...work.totals, hours: 4000 } } : work,
    );
    expect(await refusal(file)).toEqual([409, expect.stringContaining("has no hours reading")]);
  });

  test("a meter dropped that an open condition needs", async () => {
    const file = record();
    file.meters = file.meters.filter(({ id }) => id !== "landings");
    file.items = file.items.filter(({ limits }) =>
      limits.every((limit) => !("meter" in limit) || limit.meter !== "landings"),
    );
    file.works = file.works.filter(({ item }) => file.items.some(({ id }) => id === item));
    expect(await refusal(file)).toEqual([
      409,
      expect.stringContaining("Leak check: The total of landings is not known."),
    ]);
    expect((await app.request("/api/v1/aircraft/QX-TAR")).status).toBe(200);
  });
});

describe("the check of the record", () => {
  const registration = "QX-TAR";
  const line = {
    registration,
    from: "Marram Point",
    to: "Marram Point",
    off: "2026-05-01T08:00:00.000Z",
    on: "2026-05-01T09:00:00.000Z",
    pilot: "ines",
    meters: {},
    counts: { landings: 1 },
  };
  beforeAll(async () => {
    const opened = made("discrepancy.opened", {
      discrepancyId: "",
      registration,
      stationId: "tail",
      text: "x",
      grade: "note",
    });
    Object.assign(opened.data, { discrepancyId: opened.id });
    const release = made("work.released", {
      registration,
      date: "2026-05-01",
      done: "Seat rails checked.",
      readings: { hours: 4231 },
      works: [{ item: "seat-rails", date: "2026-05-01", totals: {} }],
      closes: [],
      leaves: [],
      certificate: { kind: "k", number: "n" },
    });
    const start = made(
      "preflight.started",
      { registration, listHash: `sha256:${"0".repeat(64)}`, conditions: [] },
      { crewId: "ines", stream: "preflight" },
    );
    const { refused } = await acceptEvents(
      app.database.db,
      [
        opened,
        start,
        made(
          "reading.taken",
          { itemId: "oil.level", key: "oil.level", value: 6, unit: "US qt" },
          { crewId: "ines", stream: "preflight", streamId: start.id },
        ),
        made("flight.logged", line, { crewId: "ines", stream: "flight" }),
        made("daily.signed", { registration, date: "2026-05-01" }),
        release,
        made("release.withdrawn", { registration, of: release.id, why: "Signed twice." }),
        made("meter.replaced", { registration, meter: "landings", oldReading: 9000, newReading: 0 }),
        made("component.removed", {
          registration,
          component: "engine",
          totals: { hours: 4231, landings: 10_300 },
        }),
        made("workshop.planned", { closed: [], visits: [] }, { stream: "workshop" }),
        made(
          "person.done",
          { personId: "ines", work: { item: "medical", date: "2026-05-01" } },
          { crewId: "ines", stream: "person" },
        ),
      ],
      HOME,
    );
    expect(refused).toEqual([]);
    expect((await checkProjections(app.database.db)).differences).toEqual([]);
  });

  test.each([
    ["preflight", "answered = answered + 1"],
    ["reading", "value = value + 1"],
    ["fluid_log", "amount = amount + 1"],
    ["flight_log", "pilot = 'x'"],
    ["meter_totals", "totals = '{}'"],
    ["meter_change", "new_reading = new_reading + 1"],
    ["work_done", "done_on = '2020-01-01'"],
    ["release_withdrawn", "why = 'x'"],
    ["component_move", "component = 'x'"],
    ["person_entry", "body = NULL"],
    ["workshop_plan", "crew_id = 'x'"],
    ["discrepancy", "grade = 'stop'"],
  ])("notices a changed row of %s", async (table, change) => {
    const { pool } = app.database;
    await pool.query(`CREATE TABLE kept LIKE ${table}`);
    await pool.query(`INSERT INTO kept SELECT * FROM ${table}`);
    await pool.query(`UPDATE ${table} SET ${change}`);
    const { differences } = await checkProjections(app.database.db);
    expect([...new Set(differences.map((one) => one.table))]).toEqual([table]);
    await pool.query(`DELETE FROM ${table}`);
    await pool.query(`INSERT INTO ${table} SELECT * FROM kept`);
    await pool.query("DROP TABLE kept");
  });

  test("tables of older code are rebuilt from the events at the next start, once", async () => {
    const { pool, db } = app.database;
    for (const table of [
      "work_done",
      "release_withdrawn",
      "component_move",
      "person_entry",
      "workshop_plan",
      "meter_change",
    ])
      await pool.query(`DELETE FROM ${table}`);
    await pool.query("DELETE FROM projection_version");
    expect((await rebuildOutdated(db)).sort()).toEqual([
      "component_move",
      "meter_change",
      "person_entry",
      "release_withdrawn",
      "work_done",
      "workshop_plan",
    ]);
    expect(await rebuildOutdated(db)).toEqual([]);
    expect((await checkProjections(db)).differences).toEqual([]);
  });
});
