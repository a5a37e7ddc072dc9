import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { newId } from "@cravix/contract";
import type { EventData, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { airworthinessFiles, flightEvents, yearOfFlights } from "@cravix/demo";
import { eventMaker } from "../../testing/event-maker";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { acceptEvents } from "../events/accept-events";
import { checkProjections } from "../events/check-projections";
import { readBundle, readDiscrepancies, readFleet } from "../fleet/read-fleet";
import { writeFile } from "../fleet/write-file";
import { readAirworthiness } from "./read-airworthiness";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  for (const file of airworthinessFiles(NOW))
    await writeFile(app.database.db, file, { groupId: HOME.groupId, by: "operator" });
});
afterAll(() => app.close());

/** Text of a PDF, extracted by an independent library. */
async function pdfText(path: string): Promise<string> {
  const response = await app.request(path);
  expect(response.headers.get("content-type")).toBe("application/pdf");
  const run = spawnSync(process.execPath, [join(__dirname, "..", "..", "testing", "read-pdf.mjs")], {
    input: Buffer.from(await response.arrayBuffer()),
  });
  return (JSON.parse(String(run.stdout)) as string[]).join(" ");
}

const made = eventMaker(NOW.getTime() - 3_600_000);
const accept = (...events: unknown[]) => acceptEvents(app.database.db, events, HOME);
const papers = async (registration = "QX-TAR") => {
  const found = await readAirworthiness(app.database.db, registration, "home", { now: NOW });
  if (!found) throw new Error("no papers");
  return found;
};
const RELEASE: EventData["work.released"] = {
  registration: "QX-TAR",
  date: "2026-05-01",
  done: "100-hour inspection done.",
  readings: { hours: 4232 },
  works: [{ item: "hundred", date: "2026-05-01", totals: {} }],
  closes: [],
  leaves: [],
  certificate: { kind: "airframe and powerplant", number: "100200" },
};
const line = (hours: number, more: Partial<EventData["flight.logged"]> = {}): EventData["flight.logged"] => ({
  registration: "QX-TAR",
  from: "Marram Point",
  to: "Marram Point",
  off: "2026-05-01T08:00:00.000Z",
  on: "2026-05-01T09:10:00.000Z",
  pilot: "ines",
  meters: { hours: { out: hours, in: hours + 1 } },
  counts: { landings: 2 },
  ...more,
});

test("a year of each aircraft's flights comes on record in any order, and its totals are those of its meters", async () => {
  const events = flightEvents(NOW);
  const mixed = [...events].sort((a, b) =>
    a.deviceId + a.id.slice(-6) < b.deviceId + b.id.slice(-6) ? -1 : 1,
  );
  for (let i = 0; i < mixed.length; i += 200)
    expect((await accept(...mixed.slice(i, i + 200))).refused).toEqual([]);
  expect(await app.count("flight_log")).toBe(yearOfFlights(NOW).length);
  const own = yearOfFlights(NOW).filter(({ registration }) => registration === "QX-TAR");
  const landings = own.reduce((sum, { counts }) => sum + (counts.landings ?? 0), 9812);
  expect((await papers()).totals).toEqual({ hours: own.at(-1)?.meters.hours?.in, landings });
  // The group's page knows from the log when each flew, with or without a preflight.
  const { aircraft } = await readFleet(app.database.db, HOME.groupId);
  expect(aircraft.filter(({ lastFlown }) => lastFlown === null)).toEqual([]);
  // Repeats change nothing.
  expect(await accept(...mixed.slice(0, 100))).toMatchObject({ taken: 0, repeated: 100 });
  expect((await papers()).totals.landings).toBe(landings);
});

test("a correction counts instead of its line, and a line that is struck out no more; both stay on record", async () => {
  const before = (await papers()).totals;
  const slip = made("flight.logged", line(4230.1, { counts: { landings: 20 } }), {
    crewId: "ines",
    stream: "flight",
  });
  await accept(slip);
  expect((await papers()).totals.landings).toBe((before.landings ?? 0) + 20);
  const right = made(
    "flight.corrected",
    { registration: "QX-TAR", of: slip.id, line: line(4230.1), why: "twenty for two" },
    { crewId: "ines", stream: "flight", streamId: slip.id },
  );
  await accept(right);
  expect((await papers()).totals).toEqual({ hours: 4231.1, landings: (before.landings ?? 0) + 2 });
  const struck = made(
    "flight.corrected",
    { registration: "QX-TAR", of: slip.id, why: "was another aircraft" },
    { crewId: "ines", stream: "flight", streamId: slip.id },
  );
  await accept(struck);
  expect((await papers()).totals).toEqual(before);
  const page = await (await app.request("/api/v1/aircraft/QX-TAR/flights?limit=1")).json();
  expect(page.items[0]).toMatchObject({ id: slip.id, corrections: 2, struck: true });
  expect(page.next).toBeDefined();
  const next = await (
    await app.request(`/api/v1/aircraft/QX-TAR/flights?limit=2&before=${page.next}`)
  ).json();
  expect(next.items).toHaveLength(2);
  const csv = await (await app.request("/api/v1/aircraft/QX-TAR/flights.csv")).text();
  expect(csv.split("\n")[0]).toContain("hours out,hours in,landings");
  expect(csv).not.toContain(slip.id);
  expect((await app.request("/api/v1/aircraft/QX-NONE/flights")).status).toBe(404);
});

test("a release sets what is due next and leaves its conditions; the group's page and the bundle know it", async () => {
  const reasons = async () =>
    (await readFleet(app.database.db, HOME.groupId)).aircraft
      .find((a) => a.registration === "QX-TAR")
      ?.papers.map(({ id }) => id);
  expect(await reasons()).toContain("due.hundred");
  const leaves: EventData["work.released"]["leaves"] = [
    {
      id: "leak-check",
      name: "Check for leaks",
      kind: "condition",
      limits: [{ by: "reading", meter: "hours", at: 4237 }],
      once: true,
      miss: "ask",
      source: { kind: "handbook", text: "the release of 1 May", example: false },
    },
  ];
  const release = made("work.released", { ...RELEASE, leaves });
  expect((await accept(release)).refused).toEqual([]);
  const { released, left } = await papers();
  expect(released).toMatchObject([{ item: "hundred", totals: { hours: 4232 }, release: release.id }]);
  expect(left.map(({ id }) => id)).toEqual(["leak-check"]);
  expect(await reasons()).toContain("due.leak-check");
  expect(await reasons()).not.toContain("due.hundred");
  const list = await (await app.request("/api/v1/aircraft/QX-TAR/releases")).json();
  expect(list.items[0]).toMatchObject({ id: release.id, crewId: "kofi", certificate: { number: "100200" } });
  expect((await readBundle(app.database.db, "QX-TAR", HOME.groupId))?.papers?.released).toHaveLength(1);
  // The PDF has everything a maintenance entry needs.
  const words = await pdfText(`/api/v1/releases/${release.id}/paper.pdf`);
  for (const held of [
    "2026-05-01",
    "100-hour inspection",
    "4232",
    "Kofi Asantewe",
    "airframe and powerplant",
    "100200",
    "Check for leaks",
  ])
    expect(words).toContain(held);
  expect((await app.request(`/api/v1/releases/${newId(NOW.getTime())}/paper.pdf`)).status).toBe(404);
  const log = await pdfText("/api/v1/aircraft/QX-TAR/flights.pdf");
  expect(log).toContain("4229.2 – 4230.1");
  expect(log).toContain("Inês Valadares");
});

test("a release signed in error is struck out: what it did and left counts no more, and it stays on record", async () => {
  const before = await papers();
  const release = made("work.released", {
    ...RELEASE,
    readings: { hours: 4323 },
    leaves: [
      {
        id: "second-check",
        name: "Check again",
        kind: "condition",
        limits: [{ by: "reading", meter: "hours", at: 4330 }],
        once: true,
        miss: "ask",
        source: { kind: "handbook", text: "the release", example: false },
      },
    ],
  });
  expect((await accept(release)).refused).toEqual([]);
  const strike = (more: object = {}, crewId = "kofi") =>
    made(
      "release.withdrawn",
      { registration: "QX-TAR", of: release.id, why: "The reading was 4,232.", ...more },
      { crewId },
    );
  const reason = async (event: unknown) => (await accept(event)).refused[0]?.reason;
  expect(await reason(strike({}, "ines"))).toContain("Only a mechanic can strike out a release");
  expect(await reason(strike({ of: newId(NOW.getTime()) }))).toContain("not on record");
  expect(await reason(strike({ registration: "QX-HLD" }))).toContain("not on record");
  expect((await papers()).released.length).toBe(before.released.length + 1);
  expect(await reason(strike())).toBeUndefined();
  const after = await papers();
  expect([after.released, after.left]).toEqual([before.released, before.left]);
  const list = await (await app.request("/api/v1/aircraft/QX-TAR/releases")).json();
  expect(list.items.find(({ id }: { id: string }) => id === release.id)).toMatchObject({
    withdrawn: "The reading was 4,232.",
  });
  expect((await checkProjections(app.database.db)).differences).toEqual([]);
});

test("a document is renewed by anyone who keeps the papers; nothing else is renewed without work", async () => {
  const renew = (item: string, more: object = {}, crewId = "ines") =>
    made(
      "document.renewed",
      {
        registration: "QX-TAR",
        item,
        date: "2026-05-01",
        until: "2027-04-30",
        source: "policy 12",
        ...more,
      },
      { crewId },
    );
  const refusal = async (event: PreflightEvent) => (await accept(event)).refused[0];
  expect(await refusal(renew("insurance", {}, "tomasz"))).toMatchObject({
    reason: expect.stringContaining("renew a document"),
  });
  expect(await refusal(renew("annual"))).toMatchObject({ field: "data.item" });
  expect(await refusal(renew("nothing"))).toMatchObject({ field: "data.item" });
  expect(await refusal(renew("insurance", { until: "2026-04-30" }))).toMatchObject({ field: "data.until" });
  expect(await refusal(renew("insurance", { date: "2031-01-01", until: "2032-01-01" }))).toBeDefined();
  expect(await refusal(renew("insurance"))).toBeUndefined();
  const { papers } = await (await app.request("/api/v1/aircraft/QX-TAR")).json();
  expect(papers.released).toContainEqual(
    expect.objectContaining({ item: "insurance", sets: { date: "2027-04-30", source: "policy 12" } }),
  );
});

test("a deferral is admitted by the aircraft's own rules: what is out already, who signs, until when, on which meter", async () => {
  const open = async (registration: string, itemId: string) => {
    const event = made("discrepancy.opened", {
      discrepancyId: "",
      registration,
      stationId: "nose",
      itemId,
      text: `${itemId} does not work`,
      grade: "ask",
    });
    Object.assign(event.data, { discrepancyId: event.id });
    await accept(event);
    return event.id;
  };
  const [one, other] = [await open("QX-DOV", "quick.landing"), await open("QX-DOV", "quick.landing")];
  const twin = (discrepancyId: string, more: object = {}, crewId = "kofi") =>
    made(
      "discrepancy.deferred",
      {
        discrepancyId,
        basis: "By the list.",
        rules: "example-minimum-list",
        equipment: "landing-lights",
        for: ["day" as const],
        broken: 1,
        until: "2026-06-01",
        ...more,
      },
      { crewId },
    );
  const refusal = async (...events: PreflightEvent[]) => (await accept(...events)).refused[0];
  expect(await refusal(twin(one, {}, "ines"))).toMatchObject({
    field: "data",
    reason: "This deferral must be signed by mechanic.",
  });
  expect(await refusal(twin(one, { rules: "example" }))).toMatchObject({ field: "data.rules" });
  expect(await refusal(twin(one, { reading: { meter: "bananas", at: 10 } }))).toMatchObject({
    field: "data.reading.meter",
  });
  expect(await refusal(twin(one, { broken: 2 }))).toMatchObject({ field: "data" });
  // Both in one batch: the second is refused.
  const second = await refusal(twin(one), twin(other));
  expect(second?.reason).toContain("0 of 2 working, 1 required. 1 is out already.");
});

test("who may what: a student defers nothing, a pilot releases only preventive work, no one lowers a grade but instructor and mechanic", async () => {
  const opened = made(
    "discrepancy.opened",
    { discrepancyId: "", registration: "QX-TAR", stationId: "tail", text: "Landing light out", grade: "ask" },
    { crewId: "tomasz" },
  );
  Object.assign(opened.data, { discrepancyId: opened.id });
  await accept(opened);
  const deferral = {
    discrepancyId: opened.id,
    basis: "By day.",
    rules: "example",
    for: ["day" as const],
    placard: "INOPERATIVE",
  };
  const refusal = async (event: PreflightEvent) => (await accept(event)).refused[0]?.reason;
  expect(await refusal(made("discrepancy.deferred", deferral, { crewId: "tomasz" }))).toContain(
    "can defer a discrepancy",
  );
  expect(await refusal(made("work.released", RELEASE, { crewId: "ines" }))).toBe(
    "Only a mechanic can release work to service. Inês Valadares is a pilot.",
  );
  expect(
    await refusal(
      made(
        "meter.replaced",
        { registration: "QX-TAR", meter: "hours", oldReading: 1, newReading: 0 },
        { crewId: "ines" },
      ),
    ),
  ).toContain("mechanic");
  const graded = (grade: "note" | "stop", crewId: string) =>
    made("discrepancy.regraded", { discrepancyId: opened.id, grade, why: "seen" }, { crewId });
  expect(await refusal(graded("note", "ines"))).toContain(
    "Only an instructor or a mechanic can lower the grade",
  );
  expect(await refusal(graded("stop", "tomasz"))).toBeUndefined();
  expect(await refusal(graded("note", "maren"))).toBeUndefined();
  expect(await refusal(made("discrepancy.deferred", deferral, { crewId: "ines" }))).toBeUndefined();
  expect(
    await refusal(
      made(
        "discrepancy.asked",
        { discrepancyId: opened.id, whom: "Kofi", by: "telephone", said: "By day it is fine." },
        { crewId: "tomasz" },
      ),
    ),
  ).toBeUndefined();
  const [found] = (await readDiscrepancies(app.database.db, "QX-TAR", true, HOME.groupId)).filter(
    ({ id }) => id === opened.id,
  );
  expect(found).toMatchObject({
    grade: "note",
    deferred: { placard: "INOPERATIVE", crewId: "ines" },
    asked: [{ whom: "Kofi", by: "telephone" }],
    grades: [{ grade: "stop" }, { grade: "note", crewId: "maren" }],
  });
  // A pilot can close it only within their own release of preventive maintenance.
  const closed = (crewId: string, release?: string) =>
    made(
      "discrepancy.closed",
      { discrepancyId: opened.id, how: "Bulb changed.", ...(release && { release }) },
      { crewId },
    );
  expect(await refusal(closed("ines"))).toContain("mechanic");
  expect(await refusal(closed("ines", newId(NOW.getTime())))).toContain("mechanic");
  // An inspection is not preventive maintenance, whatever it is called.
  const inspection = made("work.released", { ...RELEASE, preventive: true }, { crewId: "ines" });
  expect(await refusal(inspection)).toContain("not preventive maintenance");
  expect(
    await refusal(made("work.released", { ...RELEASE, preventive: true }, { crewId: "tomasz" })),
  ).toBeDefined();
  const own = made(
    "work.released",
    {
      ...RELEASE,
      works: [],
      closes: [opened.id],
      done: "Bulb of the landing light changed.",
      preventive: true,
    },
    { crewId: "ines" },
  );
  expect((await accept(own, closed("ines", own.id))).refused).toEqual([]);
  expect(
    (await readDiscrepancies(app.database.db, "QX-TAR", true, HOME.groupId)).some(
      ({ id }) => id === opened.id,
    ),
  ).toBe(false);
});

test("the log goes out and in as a table: what is known is known, good lines are taken, bad ones named, and not by everybody", async () => {
  const table = await (await app.request("/api/v1/aircraft/QX-HLD/flights.csv")).text();
  const send = async (text: string, crewId?: string) =>
    app.request("/api/v1/aircraft/QX-HLD/flight-log", text, "POST", { "cravix-crew": crewId ?? "" });
  expect((await send(table)).status).toBe(403);
  expect((await send(table, "tomasz")).status).toBe(403);
  const again = await (await send(table, "ines")).json();
  expect(again).toEqual({ taken: 0, repeated: 60, faults: [] });
  const [head = ""] = table.split("\n");
  const line = (off: string, on: string, out: string, back: string, landings = "1") =>
    `${off},${on},QX-HLD,Marram Point,Heronsmere,ines,,${out},${back},${landings},,,,,,,,,,`;
  const more = [
    head,
    line("2026-04-30T09:00:00Z", "2026-04-30T10:00:00Z", "3121.2", "3122.1"),
    line("2026-04-31T09:00:00Z", "2026-04-31T10:00:00Z", "3122.1", "3123.0"),
    line("2026-04-30T12:00:00Z", "2026-04-30T11:00:00Z", "3122.1", "3123.0"),
    line("2026-04-30T14:00:00Z", "2026-04-30T15:00:00Z", "3122.1", "many"),
    line("2026-04-30T16:00:00Z", "2026-04-30T17:00:00Z", "3123.1", "3123.0"),
    line("2027-04-30T16:00:00Z", "2027-04-30T17:00:00Z", "3123.1", "3124.0", "1.5"),
  ].join("\n");
  const outcome = await (await send(more, "ines")).json();
  expect(outcome.taken).toBe(1);
  expect(
    outcome.faults.map((fault: { row: number; column: string }) => `${fault.row} ${fault.column}`),
  ).toEqual(
    expect.arrayContaining(["3 off", "4 on", "5 hours in", "6 meters.hours.in", "7 off", "7 landings"]),
  );
  expect((await papers("QX-HLD")).totals.hours).toBe(3122.1);
  expect(await (await send("a,b\n1,2", "ines")).json()).toMatchObject({
    taken: 0,
    faults: expect.arrayContaining([expect.objectContaining({ row: 1, column: "off" })]),
  });
});

test("no one makes a finding vanish: not by merging in a circle, nor by putting off what the rules do not let be put off", async () => {
  const open = async (itemId: string, text: string) => {
    const event = made("discrepancy.opened", {
      discrepancyId: "",
      registration: "QX-TAR",
      stationId: "tail",
      itemId,
      text,
      grade: "stop",
    });
    Object.assign(event.data, { discrepancyId: event.id });
    await accept(event);
    return event.id;
  };
  const brake = await open("right-gear.brake", "Right brake: drips");
  const lamp = await open("quick.landing", "Landing light: dead");
  const refusal = async (event: PreflightEvent) => (await accept(event)).refused[0]?.field;
  const merge = (discrepancyId: string, into: string) => made("discrepancy.merged", { discrepancyId, into });
  expect(await refusal(merge(brake, brake))).toBe("data.into");
  expect(await refusal(merge(brake, newId(NOW.getTime())))).toBe("data.into");
  expect(await refusal(merge(brake, lamp))).toBeUndefined();
  expect(await refusal(merge(lamp, brake))).toBe("data.into");
  const again = await open("right-gear.brake", "Right brake: drips again");
  const defer = (discrepancyId: string, kinds: ("day" | "night")[], equipment?: string) =>
    made(
      "discrepancy.deferred",
      { discrepancyId, basis: "Because.", rules: "example", for: kinds, ...(equipment && { equipment }) },
      { crewId: "ines" },
    );
  expect(await refusal(defer(again, ["day"]))).toBe("data");
  // A brake is not a radio.
  expect(await refusal(defer(again, ["day"], "radio"))).toBe("data");
  expect(await refusal(defer(lamp, ["night"], "landing-light"))).toBe("data");
  // What counts as out already is known by the equipment.
  expect(await refusal(defer(lamp, ["day"]))).toBe("data.equipment");
  expect(await refusal(defer(lamp, ["day"], "radio"))).toBe("data.equipment");
  expect(await refusal(defer(lamp, ["day"], "landing-light"))).toBeUndefined();
  const [flight] = (await (await app.request("/api/v1/aircraft/QX-TAR/flights?limit=1")).json()).items;
  const elsewhere = made(
    "flight.corrected",
    { registration: "QX-TAR", of: flight.id, line: { ...line(1), registration: "QX-GONE" }, why: "x" },
    { crewId: "ines", stream: "flight", streamId: flight.id },
  );
  expect(await refusal(elsewhere)).toBe("data.line.registration");
});

test("hostile tables and lines: rejected or taken, no one waits, and nothing of ours breaks", async () => {
  const send = async (text: string) =>
    app.request("/api/v1/aircraft/QX-HLD/flight-log", text, "POST", { "cravix-crew": "ines" });
  const table = await (await app.request("/api/v1/aircraft/QX-HLD/flights.csv")).text();
  const [head = "", first = ""] = table.split("\n");
  const at = first.split(",");
  const withCell = (i: number, cell: string) =>
    [head, at.map((own, n) => (n === i ? cell : own)).join(",")].join("\n");
  for (const text of [
    "",
    "\u0000".repeat(5000),
    ",".repeat(500_000),
    `"${"x".repeat(300_000)}`,
    `${head}\n${'"'.repeat(100_001)}`,
    `${head},__proto__,constructor\n${first},1,2`,
    [head, ...Array.from({ length: 8000 }, () => first)].join("\n"),
    ...["=1+1", "9".repeat(400), "-1", "1e308", "NaN", "\u202e4211.3"].map((cell) => withCell(7, cell)),
    ...["9999-12-31T23:59:59Z", "0001-01-01T00:00:00Z", "2026-02-30T10:00:00Z", "now"].map((cell) =>
      withCell(0, cell),
    ),
  ]) {
    const response = await send(text);
    expect(response.status).toBeLessThan(500);
  }
  const odd = (data: object) => made("flight.logged", data as never, { crewId: "ines", stream: "flight" });
  for (const data of [
    JSON.parse(
      `{"registration":"QX-TAR","from":"a","to":"b","off":"2026-05-01T08:00:00.000Z","on":"2026-05-01T09:00:00.000Z","pilot":"ines","meters":{"__proto__":{"out":1,"in":2}},"counts":{"constructor":1,"toString":2}}`,
    ),
    line(1, { off: "0001-01-01T00:00:00.000Z" }),
    line(1, { on: "1999-01-01T00:00:00.000Z" }),
    line(1, { meters: { hours: { out: 999_999, in: 1_000_000 } }, pilot: "nobody of the crew" }),
    line(1, { counts: { landings: 1e6, "": 3 } }),
  ])
    expect([0, 1]).toContain((await accept(odd(data))).taken);
  expect((await app.request("/api/v1/aircraft/QX-TAR/flights")).status).toBe(200);
  expect((await app.request("/api/v1/aircraft/QX-TAR/flights.pdf")).status).toBe(200);
  expect((await app.request("/api/v1/aircraft")).status).toBe(200);
  expect((await checkProjections(app.database.db)).differences).toEqual([]);
});

test("a meter that is replaced goes on where the old one ended", async () => {
  const before = (await papers()).totals.hours ?? 0;
  await accept(
    made("meter.replaced", { registration: "QX-TAR", meter: "hours", oldReading: before, newReading: 0 }),
  );
  const later = new Date(NOW.getTime() - 60_000).toISOString();
  const flight = made(
    "flight.logged",
    line(0, {
      off: new Date(NOW.getTime() - 120_000).toISOString(),
      on: later,
      meters: { hours: { out: 0, in: 1 } },
    }),
    { crewId: "ines", stream: "flight" },
  );
  await accept(flight);
  expect((await papers()).totals.hours).toBeCloseTo(before + 1, 6);
});

test("the tables are what a fresh fold of the whole record says", async () => {
  expect((await checkProjections(app.database.db)).differences).toEqual([]);
});
