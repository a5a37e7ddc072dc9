import { newId } from "@cravix/contract";
import type { EventData, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { airworthinessFiles } from "@cravix/demo";
import fc from "fast-check";
import { eventMaker } from "../../testing/event-maker";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { readDiscrepancies, readFleet } from "../fleet/read-fleet";
import { writeFile } from "../fleet/write-file";
import { acceptEvents } from "./accept-events";
import { checkProjections } from "./check-projections";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  for (const file of airworthinessFiles(NOW))
    await writeFile(app.database.db, file, { groupId: HOME.groupId, by: "operator" });
});
afterAll(() => app.close());

const made = eventMaker(NOW.getTime() - 3_600_000);
const accept = (...events: PreflightEvent[]) => acceptEvents(app.database.db, events, HOME);
const refusal = async (event: PreflightEvent) => (await accept(event)).refused[0];
const differences = async () => (await checkProjections(app.database.db)).differences;

function open(text: string, grade: "note" | "watch" | "ask" | "stop" = "watch", at?: string) {
  const event = made("discrepancy.opened", {
    discrepancyId: "",
    registration: "QX-TAR",
    stationId: "tail",
    text,
    grade,
  });
  Object.assign(event.data, { discrepancyId: event.id });
  return at === undefined ? event : { ...event, at };
}
const merge = (from: PreflightEvent, into: PreflightEvent) =>
  made("discrepancy.merged", { discrepancyId: from.id, into: into.id });
const openIds = async () =>
  new Set((await readDiscrepancies(app.database.db, "QX-TAR", true, HOME.groupId)).map(({ id }) => id));

/** A propeller on the shelf, new to the group. */
const PROPELLER: Pick<EventData["component.fitted"], "component" | "items" | "works"> = {
  component: { id: "shared-prop", name: "Spare propeller", kind: "propeller", sinceNew: { hours: 120 } },
  items: [
    {
      id: "prop-overhaul",
      name: "Propeller overhaul",
      kind: "overhaul",
      of: "shared-prop",
      limits: [
        {
          by: "meter",
          meter: "hours",
          every: 2000,
          tolerances: [
            {
              most: 10,
              for: "to the place of the work",
              takenOff: true,
              source: { kind: "rule", text: "programme", example: true },
            },
          ],
        },
      ],
      miss: "stop",
      source: { kind: "handbook", text: "maker", example: true },
    },
  ],
  works: [{ item: "prop-overhaul", date: "2025-02-01", totals: { hours: 0 } }],
};
const hoursOf = async (registration: string) =>
  (await (await app.request(`/api/v1/aircraft/${registration}`)).json()).papers.totals.hours as number;
const fit = async (registration: string, more: object = {}, component = PROPELLER.component) =>
  made("component.fitted", {
    ...PROPELLER,
    component,
    registration,
    totals: { hours: await hoursOf(registration) },
    items: PROPELLER.items.map((item) => ({ ...item, of: component.id })),
    position: `spare ${component.id}`,
    ...more,
  });

describe("discrepancies are admitted on what is on record, the own batch included", () => {
  test("one that is logged and merged in the same batch", async () => {
    const [a, b] = [open("First trace"), open("Second trace")];
    expect((await accept(a, b, merge(a, b))).refused).toEqual([]);
    const now = await openIds();
    expect([now.has(a.id), now.has(b.id)]).toEqual([false, true]);
  });

  test("two merged into each other in one batch: the second merge is refused, and neither disappears", async () => {
    const [a, b] = [open("Round", "stop"), open("Round again", "stop")];
    const { refused } = await accept(a, b, merge(a, b), merge(b, a));
    expect(refused.map(({ field }) => field)).toEqual(["data.into"]);
    expect((await openIds()).has(b.id)).toBe(true);
  });

  test("one whose target is withdrawn is open again", async () => {
    const [stop, other] = [open("Crack", "stop"), open("Same crack")];
    await accept(stop, other, merge(stop, other));
    expect((await openIds()).has(stop.id)).toBe(false);
    await accept(made("discrepancy.withdrawn", { discrepancyId: other.id }, { streamId: other.streamId }));
    expect((await openIds()).has(stop.id)).toBe(true);
    const fleet = await readFleet(app.database.db, HOME.groupId);
    expect(
      fleet.aircraft.find(({ registration }) => registration === "QX-TAR")?.open.map(({ id }) => id),
    ).toContain(stop.id);
  });

  test("circles that an earlier version accepted are open, however long", async () => {
    const round = [open("One", "stop"), open("Two", "stop"), open("Three", "stop")];
    await accept(...round);
    for (const [i, { id }] of round.entries())
      await app.database.pool.query("UPDATE discrepancy SET merged_into = ? WHERE id = ?", [
        round[(i + 1) % 3]?.id,
        id,
      ]);
    const now = await openIds();
    expect(round.map(({ id }) => now.has(id))).toEqual([true, true, true]);
    await app.database.pool.query("UPDATE discrepancy SET merged_into = NULL WHERE id IN (?)", [
      round.map(({ id }) => id),
    ]);
  });

  test("a photograph needs its discrepancy, and the sixth is refused within one batch", async () => {
    const found = open("Six photographs");
    const picture = (discrepancyId: string, n: number) =>
      made("discrepancy.photographed", {
        discrepancyId,
        photograph: `sha256:${String(n).repeat(64)}`,
        width: 10,
        height: 10,
      });
    expect((await refusal(picture(newId(NOW.getTime()), 1)))?.field).toBe("data.discrepancyId");
    const { refused } = await accept(found, ...[1, 2, 3, 4, 5, 6].map((n) => picture(found.id, n)));
    expect(refused.map(({ reason }) => reason)).toEqual([
      "A discrepancy can have at most 5 photos, and this one has 5 already.",
    ]);
  });

  test("a pilot's preventive release closes no stop, and nothing that a mechanic graded", async () => {
    const [stop, graded, own] = [open("Brake line", "stop"), open("Tyre", "note"), open("Lamp", "note")];
    await accept(
      { ...stop, crewId: "ines" },
      { ...graded, crewId: "ines" },
      { ...own, crewId: "ines" },
      made("discrepancy.regraded", { discrepancyId: graded.id, grade: "watch", why: "seen" }),
    );
    const release = (closes: string[]) =>
      made(
        "work.released",
        {
          registration: "QX-TAR",
          date: "2026-05-01",
          done: "Mended.",
          readings: {},
          works: [],
          closes,
          leaves: [],
          certificate: { kind: "PPL", number: "1" },
          preventive: true,
        },
        { crewId: "ines" },
      );
    expect((await refusal(release([stop.id])))?.reason).toContain("Only a mechanic can sign it off");
    expect((await refusal(release([graded.id])))?.reason).toContain("graded by a mechanic");
    const good = release([own.id]);
    const closed = (id: string) =>
      made("discrepancy.closed", { discrepancyId: id, how: "Mended.", release: good.id }, { crewId: "ines" });
    const { refused } = await accept(good, closed(own.id), closed(stop.id));
    expect(refused.map(({ field }) => field)).toEqual(["crewId"]);
    const now = await openIds();
    expect([now.has(own.id), now.has(stop.id)]).toEqual([false, true]);
  });
});

describe("a component", () => {
  test("is on one aircraft, whoever is first, and within one batch", async () => {
    for (let round = 0; round < 6; round++) {
      const component = { ...PROPELLER.component, id: `race-${round}` };
      const both = [await fit("QX-TAR", {}, component), await fit("QX-COR", {}, component)];
      const answers =
        round % 2 === 0 ? await Promise.all(both.map((event) => accept(event))) : [await accept(...both)];
      expect(answers.reduce((sum, { taken }) => sum + taken, 0)).toBe(1);
      const reasons = answers.flatMap(({ refused }) => refused.map(({ reason }) => reason));
      expect(reasons).toEqual([expect.stringMatching(/is fitted to QX-|differ from those/)]);
    }
    expect(await differences()).toEqual([]);
  });

  test("with tolerances is removed here and fitted there in one batch, and comes back", async () => {
    const { id } = PROPELLER.component;
    expect((await accept(await fit("QX-TAR"))).refused).toEqual([]);
    const shelf = async () =>
      (await (await app.request("/api/v1/workshop")).json()).shelf.find(
        (one: { component: { id: string } }) => one.component.id === id,
      );
    const remove = async (registration: string) =>
      made("component.removed", {
        registration,
        component: id,
        totals: { hours: await hoursOf(registration) },
      });
    expect((await accept(await remove("QX-TAR"))).refused).toEqual([]);
    const { from: _from, at: _at, ...asItCame } = await shelf();
    expect(asItCame.items[0].limits[0].tolerances).toHaveLength(1);
    const back = async (registration: string) => fit(registration, asItCame, asItCame.component);
    expect(
      (await accept(await back("QX-COR"), await remove("QX-COR"), await back("QX-TAR"))).refused,
    ).toEqual([]);
    expect(await shelf()).toBeUndefined();
    expect(await differences()).toEqual([]);
  });

  test("removed below its totals at fitting is refused by its field, and nothing waits for it", async () => {
    const component = { ...PROPELLER.component, id: "below" };
    await accept(await fit("QX-TAR", {}, component));
    const low = made("component.removed", {
      registration: "QX-TAR",
      component: "below",
      totals: { hours: 1 },
    });
    const next = open("After it");
    const { taken, refused } = await accept(low, next);
    expect([taken, refused.map(({ field, reason }) => [field, reason])]).toEqual([
      1,
      [
        [
          "data.totals",
          expect.stringMatching(/^Spare propeller was fitted at .* but the aircraft has only 1\.0/),
        ],
      ],
    ]);
  });

  test("fitted above the aircraft's hours, or without them, is asked about", async () => {
    const above = await fit(
      "QX-TAR",
      { totals: { hours: (await hoursOf("QX-TAR")) + 90 } },
      {
        ...PROPELLER.component,
        id: "above",
      },
    );
    expect(await refusal(above)).toMatchObject({
      field: "data.totals.hours",
      reason: expect.stringContaining("is above the aircraft's total"),
    });
    const unused = await fit("QX-TAR", {}, { ...PROPELLER.component, id: "unused", sinceNew: {} });
    expect(await refusal(unused)).toMatchObject({
      field: "data",
      reason: "Propeller overhaul: The total of hours is not known.",
    });
    const without = await fit("QX-TAR", { totals: {} }, { ...PROPELLER.component, id: "without" });
    expect((await refusal(without))?.field).toBe("data.totals.hours");
  });
});

describe("at the door", () => {
  const RELEASE: EventData["work.released"] = {
    registration: "QX-TAR",
    date: "2026-05-01",
    done: "100-hour inspection.",
    readings: {},
    works: [{ item: "hundred", date: "2026-05-01", totals: {} }],
    closes: [],
    leaves: [],
    certificate: { kind: "A&P", number: "1" },
  };
  const condition = (meter: string): EventData["work.released"]["leaves"][number] => ({
    id: "leak",
    name: "Leak check",
    kind: "condition",
    limits: [{ by: "reading", meter, at: 4240 }],
    once: true,
    miss: "stop",
    source: { kind: "rule", text: "release", example: true },
  });

  test.each<[string, Partial<EventData["work.released"]>, string]>([
    ["no meter reading", {}, "data.readings.hours"],
    ["a meter that the aircraft has not", { readings: { hours: 4230, bananas: 1 } }, "data.readings.bananas"],
    ["a reading far above the log", { readings: { hours: 42_301 } }, "data.readings.hours"],
    ["a date in the future", { readings: { hours: 4230 }, date: "2026-06-01" }, "data.date"],
    ["a year long gone", { readings: { hours: 4230 }, date: "1911-06-01" }, "data.date"],
    [
      "a condition by no meter",
      { readings: { hours: 4230 }, leaves: [condition("bananas")] },
      "data.leaves[0].limits[0].meter",
    ],
    [
      "a work after the release",
      { readings: { hours: 4230 }, works: [{ item: "annual", date: "2199-01-01", totals: {} }] },
      "data.works[0].date",
    ],
  ])("a release with %s is refused at its field", async (_why, more, field) => {
    const refused = await refusal(made("work.released", { ...RELEASE, ...more }));
    expect(refused?.field).toBe(field);
    expect(refused?.reason.length).toBeGreaterThan(10);
  });

  test("an aircraft has at most three hundred open conditions; those met do not count", async () => {
    const leave = (from: number, count: number) =>
      made("work.released", {
        ...RELEASE,
        readings: { hours: 4230 },
        works: [],
        leaves: Array.from({ length: count }, (_, i) => ({ ...condition("hours"), id: `leak ${from + i}` })),
      });
    for (let from = 0; from < 280; from += 40) expect((await accept(leave(from, 40))).refused).toEqual([]);
    expect((await refusal(leave(280, 40)))?.field).toBe("data.leaves");
    const met = Array.from({ length: 100 }, (_, i) => ({
      item: `leak ${i}`,
      date: "2026-05-01",
      totals: {},
    }));
    const done = made("work.released", { ...RELEASE, readings: { hours: 4230 }, works: met });
    expect((await accept(done)).refused).toEqual([]);
    expect((await accept(leave(280, 40))).refused).toEqual([]);
    const { papers } = await (await app.request("/api/v1/aircraft/QX-TAR")).json();
    expect(papers.left).toHaveLength(320);
  });

  test("a flight that ends in another century is refused, and so is one before the aircraft", async () => {
    const line = (off: string, on: string): EventData["flight.logged"] => ({
      registration: "QX-TAR",
      from: "Marram Point",
      to: "Marram Point",
      off,
      on,
      pilot: "ines",
      meters: {},
      counts: {},
    });
    const log = (off: string, on: string) =>
      made("flight.logged", line(off, on), { crewId: "ines", stream: "flight" });
    expect((await refusal(log("2026-05-01T10:00:00.000Z", "2206-05-01T11:00:00.000Z")))?.field).toBe(
      "data.on",
    );
    expect((await refusal(log("2026-05-01T10:00:00.000Z", "9999-12-31T11:00:00.000Z")))?.field).toBe(
      "data.on",
    );
    const early = log("2001-01-02T10:00:00.000Z", "2001-01-02T11:00:00.000Z");
    Object.assign(early.data, { registration: "QX-LUM" });
    expect((await refusal(early))?.reason).toBe("QX-LUM was built in 2016. Check the date.");
    expect((await refusal(log("2026-05-01T10:00:00.000Z", "2026-05-01T09:00:00.000Z")))?.field).toBe(
      "data.on",
    );
  });
});

describe("the order of the record does not follow from ids", () => {
  /** As from a device whose clock was years ahead: the time is right, the id is not. */
  const ahead = <E extends PreflightEvent>(event: E): E => {
    const id = newId(Date.UTC(2190, 0));
    return { ...event, id, streamId: event.stream === "preflight" ? event.streamId : id };
  };

  test("a later plan replaces one with an id of the future", async () => {
    const plan = (why: string) =>
      made(
        "workshop.planned",
        { closed: [{ from: "2026-06-01", to: "2026-06-02", why }], visits: [] },
        { crewId: "yuki", stream: "workshop" },
      );
    await accept(ahead(plan("future")));
    await accept(plan("later"));
    const { plan: now } = await (await app.request("/api/v1/workshop")).json();
    expect(now.closed[0].why).toBe("later");
  });

  test("a later medical, grade and preflight as well", async () => {
    const medical = (days: number) =>
      made(
        "person.due-set",
        {
          personId: "ines",
          item: {
            id: "medical",
            kind: "medical",
            name: "Medical",
            limits: [{ by: "days", days }],
            miss: "stop",
            source: { kind: "rule", text: "x", example: true },
          },
        },
        { crewId: "ines", stream: "person" },
      );
    await accept(ahead(medical(1)));
    await accept(medical(2));
    const due = await app.request("/api/v1/people/ines/due", undefined, "GET", { "cravix-crew": "ines" });
    expect((await due.json()).items.find(({ id }: { id: string }) => id === "medical").limits).toEqual([
      { by: "days", days: 2 },
    ]);
    const found = open("Graded");
    const graded = (grade: "stop" | "watch") =>
      made("discrepancy.regraded", { discrepancyId: found.id, grade, why: "x" });
    await accept(found, ahead(graded("stop")));
    await accept(graded("watch"));
    const [row] = (await readDiscrepancies(app.database.db, "QX-TAR", true, HOME.groupId)).filter(
      ({ id }) => id === found.id,
    );
    expect(row?.grade).toBe("watch");
    const start = () =>
      made(
        "preflight.started",
        { registration: "QX-COR", listHash: `sha256:${"0".repeat(64)}`, conditions: [] },
        { crewId: "ines", stream: "preflight" },
      );
    await accept(ahead(start()));
    const last = start();
    await accept(last);
    const fleet = await readFleet(app.database.db, HOME.groupId);
    expect(fleet.aircraft.find(({ registration }) => registration === "QX-COR")?.lastPreflight?.id).toBe(
      last.streamId,
    );
    expect(await differences()).toEqual([]);
  });

  test("a clock that is a little fast is corrected; the same event again is a repeat", async () => {
    const fast = { ...open("Fast clock"), at: new Date(NOW.getTime() + 300_000).toISOString() };
    expect(await accept(fast)).toMatchObject({ taken: 1, refused: [] });
    expect(await accept(fast)).toMatchObject({ taken: 0, repeated: 1, refused: [] });
    const [row] = (await readDiscrepancies(app.database.db, "QX-TAR", true, HOME.groupId)).filter(
      ({ id }) => id === fast.id,
    );
    expect(row?.openedAt).toBe(NOW.toISOString());
  });
});

test("many newer notes never push a stop out of the aircraft's checklist", async () => {
  const stop = open("Old stop", "stop", "2026-04-01T10:00:00.000Z");
  await accept(stop);
  const notes = Array.from({ length: 520 }, (_, i) => open(`Note ${i}`, "note"));
  for (let i = 0; i < notes.length; i += 260) await accept(...notes.slice(i, i + 260));
  const { openDiscrepancies } = await (await app.request("/api/v1/aircraft/QX-TAR")).json();
  expect(openDiscrepancies).toHaveLength(500);
  expect(openDiscrepancies.map(({ id }: { id: string }) => id)).toContain(stop.id);
}, 60_000);

test("whatever concurrent batches do with merges, components and grades, no two disagree", async () => {
  const aircraft = ["QX-TAR", "QX-COR"] as const;
  const step = fc.record({
    kind: fc.constantFrom("merge", "withdraw", "fit", "remove", "grade", "defer"),
    a: fc.nat(3),
    b: fc.nat(3),
    at: fc.nat(1),
  });
  let round = 0;
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(step, { minLength: 1, maxLength: 4 }), { minLength: 2, maxLength: 4 }),
      async (batches) => {
        round++;
        const found = Array.from({ length: 4 }, (_, i) => open(`Any ${round}.${i}`, "stop"));
        await accept(...found);
        const hours = { "QX-TAR": await hoursOf("QX-TAR"), "QX-COR": await hoursOf("QX-COR") };
        const component = { ...PROPELLER.component, id: `any-${round}` };
        const eventOf = async ({ kind, a, b, at }: { kind: string; a: number; b: number; at: number }) => {
          const [one, other] = [found[a] as PreflightEvent, found[b] as PreflightEvent];
          const registration = aircraft[at] as (typeof aircraft)[number];
          if (kind === "merge") return merge(one, other);
          if (kind === "grade")
            return made("discrepancy.regraded", { discrepancyId: one.id, grade: "ask", why: "x" });
          if (kind === "defer")
            return made("discrepancy.deferred", {
              discrepancyId: one.id,
              basis: "x",
              rules: "example",
              for: ["day"],
            });
          if (kind === "withdraw")
            return made("discrepancy.withdrawn", { discrepancyId: one.id }, { streamId: one.streamId });
          if (kind === "fit") return fit(registration, {}, component);
          return made("component.removed", {
            registration,
            component: component.id,
            totals: { hours: hours[registration] },
          });
        };
        const sent = await Promise.all(batches.map((steps) => Promise.all(steps.map(eventOf))));
        await Promise.all(sent.map((events) => accept(...events)));
        // Every finding is open, withdrawn by its author, or carried on by one that is open.
        const now = await openIds();
        const [rows] = await app.database.pool.query(
          "SELECT id, merged_into AS into_id, withdrawn_at AS withdrawn FROM discrepancy WHERE id IN (?)",
          [found.map(({ id }) => id)],
        );
        const known = new Map(
          (rows as { id: string; into_id: string | null; withdrawn: string | null }[]).map((row) => [
            row.id,
            row,
          ]),
        );
        for (const { id } of found) {
          let at: string | null = id;
          for (
            let hops = 0;
            at !== null && !now.has(at) && known.get(at)?.withdrawn === null && hops < 6;
            hops++
          )
            at = known.get(at)?.into_id ?? null;
          expect(at !== null && (now.has(at) || at === id)).toBe(true);
        }
        const fitted = await Promise.all(
          aircraft.map(async (registration) => {
            const { papers } = await (await app.request(`/api/v1/aircraft/${registration}`)).json();
            return papers.record.fittings.filter(
              (one: { component: string; off?: object }) => one.component === component.id && !one.off,
            ).length as number;
          }),
        );
        expect(fitted.reduce((sum, n) => sum + n, 0)).toBeLessThanOrEqual(1);
      },
    ),
    { numRuns: 15 },
  );
  expect(await differences()).toEqual([]);
}, 120_000);
