import { airworthinessSnapshot } from "@cravix/core/airworthiness/airworthiness-snapshot";
import type { PersonRecord } from "@cravix/core/airworthiness/people/person-due";
import type { EventData } from "@cravix/core/checklist/stream/events";
import { airworthinessFiles, flightEvents, personEvents } from "@cravix/demo";
import Papa from "papaparse";
import { eventMaker } from "../../testing/event-maker";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { acceptEvents } from "../events/accept-events";
import { checkProjections } from "../events/check-projections";
import { writeFile } from "../fleet/write-file";
import { readAirworthiness } from "./read-airworthiness";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  for (const file of airworthinessFiles(NOW))
    await writeFile(app.database.db, file, { groupId: HOME.groupId, by: "operator" });
  const events = flightEvents(NOW);
  for (let i = 0; i < events.length; i += 400) await accept(...events.slice(i, i + 400));
});
afterAll(() => app.close());

const made = eventMaker(NOW.getTime() - 3_600_000);
const accept = (...events: unknown[]) => acceptEvents(app.database.db, events, HOME);
const refusal = async (...events: unknown[]) => (await accept(...events)).refused[0];
const papers = async (registration: string) => {
  const found = await readAirworthiness(app.database.db, registration, "home", { now: NOW });
  if (!found) throw new Error("no papers");
  return found;
};
interface Shelved {
  from: string;
  component: { id: string; sinceNew: Record<string, number> };
  items: object[];
  works: object[];
}
const workshop = async () =>
  (await (await app.request("/api/v1/workshop")).json()) as {
    plan: { closed: object[]; visits: { date: string }[]; crewId: string } | null;
    shelf: Shelved[];
  };

describe("components move", () => {
  const removed = (
    registration: string,
    component: string,
    totals: Record<string, number>,
    crewId = "kofi",
  ) => made("component.removed", { registration, component, totals }, { crewId });

  it("comes off, lies on the shelf with its times, and is fitted elsewhere with what is due on it", async () => {
    const before = await papers("QX-DOV");
    expect(
      airworthinessSnapshot(before.record, before).dues.some(({ item }) => item.of === "engine-right"),
    ).toBe(true);
    expect(await refusal(removed("QX-DOV", "engine-right", before.totals, "ines"))).toMatchObject({
      reason: "Only a mechanic can remove or fit a component. Inês Valadares is a pilot.",
    });
    expect(await refusal(removed("QX-DOV", "no such", before.totals))).toMatchObject({
      field: "data.component",
    });
    expect(await refusal(removed("QX-DOV", "engine-right", before.totals))).toBeUndefined();
    const after = await papers("QX-DOV");
    expect(
      airworthinessSnapshot(after.record, after).dues.some(({ item }) => item.of === "engine-right"),
    ).toBe(false);
    // Already removed.
    expect(await refusal(removed("QX-DOV", "engine-right", before.totals))).toMatchObject({
      reason: "engine-right is not fitted to QX-DOV.",
    });
    const { shelf } = await workshop();
    expect(shelf.map(({ from, component }) => [from, component.id])).toEqual([
      ["QX-DOV", "QX-DOV.engine-right"],
    ]);
    const [lies] = shelf as [Shelved];
    const { from: _from, at: _at, ...asItIs } = lies as Shelved & { at: string };
    const target = await papers("QX-HLD");
    const fitted = (more: object = {}) =>
      made("component.fitted", {
        ...asItIs,
        registration: "QX-HLD",
        position: "spare",
        totals: target.totals,
        ...more,
      } as EventData["component.fitted"]);
    // Its times cannot be reduced on the way.
    const younger = { component: { ...lies.component, sinceNew: { hours: 1 } } };
    expect((await refusal(fitted(younger)))?.reason).toContain("differ from those at its removal");
    expect((await refusal(fitted({ position: "engine" })))?.reason).toContain("Remove it first");
    expect(await refusal(fitted())).toBeUndefined();
    expect((await workshop()).shelf).toEqual([]);
    const there = await papers("QX-HLD");
    const own = airworthinessSnapshot(there.record, there).dues.filter(
      ({ item }) => item.of === "QX-DOV.engine-right",
    );
    expect(own.length).toBeGreaterThan(0);
    expect(own[0]?.own?.hours).toBeCloseTo(lies.component.sinceNew.hours ?? -1, 6);
    expect(await refusal(fitted({ registration: "QX-TAR", position: "second" }))).toMatchObject({
      reason: expect.stringContaining("is fitted to QX-HLD. Log its removal there first"),
    });
  });
});

describe("the workshop's plan", () => {
  const plan = (visits: EventData["workshop.planned"]["visits"], crewId = "kofi", closed: object[] = []) =>
    made(
      "workshop.planned",
      { closed: closed as EventData["workshop.planned"]["closed"], visits },
      { crewId, stream: "workshop" },
    );
  const visit = (date: string, registration = "QX-TAR") => ({
    registration,
    date,
    items: ["100-hour inspection", "Oil, filter"],
  });

  it("is saved by who may; the last one counts, in whichever order they come", async () => {
    expect(await refusal(plan([visit("2026-05-20")], "ines"))).toMatchObject({ field: "crewId" });
    expect((await refusal(plan([visit("2026-05-20", "QX-GONE")])))?.reason).toContain("QX-GONE");
    expect(await refusal(plan([], "kofi", [{ from: "2026-05-20", to: "2026-05-19" }]))).toMatchObject({
      field: "data.closed[0].to",
    });
    expect(await refusal(plan([], "kofi", [{ from: "2026-02-29", to: "2026-03-01" }]))).toBeDefined();
    const [first, second] = [
      plan([visit("2026-05-20")]),
      plan([visit("2026-05-21")], "yuki", [{ from: "2026-12-24", to: "2027-01-02", why: "holidays" }]),
    ];
    expect(await refusal(second)).toBeUndefined();
    expect(await refusal(first)).toBeUndefined();
    expect((await workshop()).plan).toMatchObject({
      crewId: "yuki",
      visits: [{ date: "2026-05-21" }],
      closed: [{ why: "holidays" }],
    });
  });

  it("goes out as a table, with what is due and when it may be", async () => {
    const response = await app.request("/api/v1/workshop/plan.csv");
    expect(response.headers.get("content-type")).toContain("text/csv");
    const { data, errors } = Papa.parse<Record<string, string>>((await response.text()).trim(), {
      header: true,
    });
    expect(errors).toEqual([]);
    expect(data.find(({ what }) => what === "visit")).toEqual({
      date: "2026-05-21",
      what: "visit",
      registration: "QX-TAR",
      text: "100-hour inspection, Oil, filter",
      from: "",
      to: "",
    });
    const due = data.filter(({ what }) => what === "due");
    expect(new Set(due.map(({ registration }) => registration)).size).toBe(6);
    for (const { from, date, to } of due)
      if (from) expect([from <= (date ?? ""), to === "" || (date ?? "") <= (to ?? "")]).toEqual([true, true]);
    expect(due.some(({ from }) => from !== "")).toBe(true);
    expect(data.map(({ date }) => date)).toEqual(data.map(({ date }) => date).sort());
  });

  /** RFC 5545: lines of at most 75 octets ending in CRLF, whole days as DATE, the end is the day after the last. */
  it("goes out as iCalendar, as RFC 5545 has it", async () => {
    const response = await app.request("/api/v1/workshop/plan.ics");
    expect(response.headers.get("content-type")).toContain("text/calendar");
    const text = await response.text();
    const lines = text.split("\r\n");
    expect(lines[0]).toBe("BEGIN:VCALENDAR");
    expect(lines.filter((one) => one === "BEGIN:VEVENT").length).toBe(
      lines.filter((one) => one === "END:VEVENT").length,
    );
    for (const one of lines) expect(Buffer.byteLength(one)).toBeLessThanOrEqual(75);
    const unfolded = text.replace(/\r\n[ \t]/g, "");
    const entry = unfolded.split("BEGIN:VEVENT").find((part) => part.includes("QX-TAR in the workshop"));
    expect(entry).toContain("DTSTART;VALUE=DATE:20260521");
    expect(entry).toContain("DTEND;VALUE=DATE:20260522");
    // Commas in text are escaped.
    expect(entry).toContain("Oil\\, filter");
    const closed = unfolded.split("BEGIN:VEVENT").find((part) => part.includes("holidays"));
    expect(closed).toContain("DTSTART;VALUE=DATE:20261224");
    expect(closed).toContain("DTEND;VALUE=DATE:20270103");
    const uids = [...unfolded.matchAll(/UID:(.+)\r/g)].map(([, uid]) => uid);
    expect(new Set(uids).size).toBe(uids.length);
    // The same plan gives the same calendar.
    const again = await (await app.request("/api/v1/workshop/plan.ics")).text();
    expect([...again.matchAll(/UID:(.+)\r/g)].map(([, uid]) => uid)).toEqual(uids);
  });
});

describe("what is due of people", () => {
  const due = async (person: string, asks?: string) =>
    app.request(`/api/v1/people/${person}/due`, undefined, "GET", { "cravix-crew": asks ?? "" });
  const medical = (personId: string, crewId: string, more: object = {}) =>
    made(
      "person.due-set",
      {
        personId,
        item: {
          id: "medical",
          name: "Medical",
          kind: "medical",
          limits: [{ by: "date", date: "2027-01-31" }],
          miss: "stop",
          source: { kind: "rule", text: "printed", example: false },
          ...more,
        },
      } as EventData["person.due-set"],
      { crewId, stream: "person" },
    );

  it("is for the person, and for instructors; no one else, and no one who has no name", async () => {
    expect((await accept(...personEvents(NOW))).refused).toEqual([]);
    expect((await due("ines", "ines")).status).toBe(200);
    expect((await due("ines", "maren")).status).toBe(200);
    for (const asks of ["tomasz", "kofi", "yuki", undefined, "nobody", "__proto__"])
      expect((await due("ines", asks)).status).toBe(403);
    expect((await due("nobody", "maren")).status).toBe(404);
    // No other list, page or bundle contains any of it.
    for (const path of ["/aircraft", "/aircraft/QX-TAR", "/preflights", "/discrepancies?state=all"])
      expect(await (await app.request(`/api/v1${path}`)).text()).not.toContain("61.56");
  });

  it("comes out of the log: take-offs and landings of the pilot, by day and at night", async () => {
    const record = (await (await due("ines", "ines")).json()) as PersonRecord;
    const flights = flightEvents(NOW).filter(
      ({ data }) => "pilot" in data && data.pilot === "ines" && data.off >= "2025-03-28",
    );
    expect(record.flown.length).toBe(flights.length);
    expect(new Set(record.flown.map((one) => one.class)).size).toBeGreaterThan(1);
    expect(record.items.map(({ id }) => id).sort()).toEqual([
      "medical",
      "own-limits",
      "passengers",
      "passengers-night",
      "review",
    ]);
    expect(record.works.map(({ item }) => item).sort()).toEqual(["own-limits", "review"]);
  });

  it("a person enters his own, an instructor what is given; a student widens no authorisation", async () => {
    expect(await refusal(medical("ines", "ines"))).toBeUndefined();
    expect(await refusal(medical("ines", "tomasz"))).toMatchObject({ field: "crewId" });
    expect((await refusal(medical("nobody", "maren")))?.reason).toContain("nobody");
    const solo = (crewId: string, kind = "authorisation") =>
      medical("tomasz", crewId, {
        id: "solo",
        name: "Solo",
        kind,
        limits: [{ by: "date", date: "2030-01-01" }],
      });
    expect((await refusal(solo("tomasz")))?.reason).toContain("for yourself");
    expect((await refusal(solo("ines")))?.reason).toContain(
      "Only an instructor can enter a review or an authorisation",
    );
    // Under another name it is still the instructor's item.
    expect((await refusal(solo("tomasz", "training")))?.reason).toContain("for yourself");
    const done = made(
      "person.done",
      { personId: "tomasz", work: { item: "solo", date: "2026-05-01", sets: { date: "2030-01-01" } } },
      { crewId: "tomasz", stream: "person" },
    );
    expect((await refusal(done))?.reason).toContain("for yourself");
    const dropped = made(
      "person.due-dropped",
      { personId: "tomasz", item: "solo" },
      { crewId: "tomasz", stream: "person" },
    );
    expect((await refusal(dropped))?.reason).toContain("for yourself");
    expect(await refusal(solo("maren"))).toBeUndefined();
    const odd = medical("ines", "ines", {
      limits: [{ by: "recency", times: 3, days: 90, date: "2027-01-01" }],
    });
    expect((await refusal(odd))?.reason).toContain("must have the fields of its kind of limit");
  });

  it("no one reviews himself, not even an instructor", async () => {
    const review = (personId: string, crewId: string) =>
      medical(personId, crewId, {
        id: "review",
        name: "Flight review",
        kind: "review",
        limits: [{ by: "months", months: 24, to: "month end" }],
      });
    expect((await refusal(review("maren", "maren")))?.reason).toContain("for yourself");
    expect((await refusal(review("ines", "ines")))?.reason).toContain("for yourself");
    expect(await refusal(review("yuki", "maren"))).toBeUndefined();
  });

  it("of two things said of one item the later counts, whichever comes first", async () => {
    const [first, second] = [
      medical("yuki", "yuki", { name: "First" }),
      medical("yuki", "yuki", { name: "Second" }),
    ];
    await accept(second);
    await accept(first);
    const record = (await (await due("yuki", "yuki")).json()) as PersonRecord;
    expect(record.items.find(({ id }) => id === "medical")?.name).toBe("Second");
  });
});

test("a fresh fold of the whole record finds nothing else than what is written", async () => {
  expect((await checkProjections(app.database.db)).differences).toEqual([]);
});
