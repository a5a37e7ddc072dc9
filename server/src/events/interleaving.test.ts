import { newId } from "@cravix/contract";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import fc from "fast-check";
import { type EventWriter, eventWriter, STARTED } from "../../testing/make-events";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { acceptEvents } from "./accept-events";
import { checkProjections } from "./check-projections";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

const PEOPLE = ["ines", "maren", "kofi"];
const OPENING = { registration: "QX-TAR", stationId: "tail", text: "Skid worn", grade: "watch" } as const;

type Made = { [T in EventType]?: () => EventData[T] };

/** A random event of any kind, about existing things: other preflights' discrepancies, and each other's events. */
function makeEvent(
  writer: EventWriter,
  kind: EventType,
  pick: (max: number) => number,
  made: readonly PreflightEvent[],
): PreflightEvent {
  const other = made[pick(Math.max(1, made.length))] as PreflightEvent | undefined;
  const openings = made.filter((e) => e.type === "discrepancy.opened");
  const opened = openings[pick(Math.max(1, openings.length))];
  const discrepancyId = opened?.id ?? newId(NOW.getTime() - 4_000_000);
  const itemId = `item.${pick(6)}`;
  const data: Made = {
    "preflight.started": () => ({ ...STARTED, conditions: pick(2) ? ["night"] : [] }),
    "item.answered": () => ({ itemId, outcome: pick(2) ? "checked" : "found" }),
    "item.postponed": () => ({ itemId }),
    "item.visited": () => ({ itemId }),
    "item.undone": () => ({ eventId: other?.id ?? newId(0) }),
    "reading.taken": () => ({ itemId, key: `oil.level`, value: pick(9), unit: "US qt" }),
    "sample.taken": () => ({ itemId, look: pick(2) ? "clean" : "water" }) as EventData["sample.taken"],
    "wings.rocked": () => ({}),
    "fuel.uplifted": () => ({
      registration: "QX-TAR",
      tankId: "left",
      amount: 1 + pick(40),
      unit: "L",
      from: "typed",
    }),
    "fuel.told": () => ({ unit: "L" }),
    "oil.added": () => ({ registration: "QX-TAR", qt: 1, sealed: true }),
    "blade.pulled": () => ({ itemId, blade: 1 + pick(4) }),
    "run-up.read": () =>
      ({ itemId, from: "typed", notes: [], rpm: [], steps: [] }) as EventData["run-up.read"],
    "station.flowed": () => ({ stationId: "tail" }),
    "crew.joined": () => ({ crewId: "maren" }),
    "crew.left": () => ({ crewId: "maren" }),
    "discrepancy.opened": () => ({ ...OPENING, discrepancyId }),
    "discrepancy.observed": () => ({
      discrepancyId,
      itemId: "k",
      state: pick(2) ? "same" : "grown",
      measure: `${pick(9)} mm`,
    }),
    "discrepancy.withdrawn": () => ({ discrepancyId }),
    "discrepancy.closed": () => ({ discrepancyId, how: "mended" }),
    interrupted: () => ({ itemId }),
    resumed: () => ({ way: "where I was" }),
    "verdict.signed": () => ({ verdict: "go", decision: pick(2) ? "fly" : "not flying", reasons: [] }),
  };
  const event = writer.write(kind, (data[kind] as () => EventData[typeof kind])());
  // Usually its own id, as it should be; sometimes another's.
  if (event.type === "discrepancy.opened" && pick(5) > 0) event.data.discrepancyId = event.id;
  return event;
}

const KINDS: EventType[] = [
  "preflight.started",
  "item.answered",
  "item.postponed",
  "item.visited",
  "item.undone",
  "item.undone",
  "item.undone",
  "reading.taken",
  "sample.taken",
  "wings.rocked",
  "fuel.uplifted",
  "fuel.told",
  "oil.added",
  "blade.pulled",
  "run-up.read",
  "station.flowed",
  "crew.joined",
  "crew.left",
  "discrepancy.opened",
  "discrepancy.opened",
  "discrepancy.observed",
  "discrepancy.observed",
  "discrepancy.observed",
  "discrepancy.withdrawn",
  "discrepancy.closed",
  "interrupted",
  "resumed",
  "verdict.signed",
];

test("whatever order events arrive in, at once or in parts, the tables equal a fresh fold", async () => {
  const step = fc.tuple(
    fc.integer({ min: 0, max: 2 }),
    fc.constantFrom(...KINDS),
    fc.constantFrom(...PEOPLE),
    fc.nat(),
  );
  let taken = 0;
  let changed = 0;
  await fc.assert(
    fc.asyncProperty(
      fc.array(step, { minLength: 20, maxLength: 60 }),
      fc.infiniteStream(fc.nat(1000)),
      async (steps, chance) => {
        const pick = (max: number) => (chance.next().value ?? 0) % max;
        const writers = PEOPLE.map((crewId) => eventWriter(crewId));
        const made: PreflightEvent[] = writers.map((writer) => writer.write("preflight.started", STARTED));
        for (const [which, kind, crewId] of steps) {
          const writer = writers[which] as EventWriter;
          made.push({ ...makeEvent(writer, kind, pick, made), crewId } as PreflightEvent);
        }
        // In batches, some events twice, shuffled, and sent concurrently.
        const cards = made
          .flatMap((event) => (pick(5) === 0 ? [event, event] : [event]))
          .map((event) => ({ event, at: pick(1000) }))
          .sort((a, b) => a.at - b.at)
          .map(({ event }) => event);
        const batches: PreflightEvent[][] = [];
        while (cards.length > 0) batches.push(cards.splice(0, 1 + pick(8)));
        const answers = await Promise.all(batches.map((batch) => acceptEvents(app.database.db, batch, HOME)));
        taken += answers.reduce((sum, answer) => sum + answer.taken, 0);
        // Everything not rejected is on record.
        const [rows] = await app.database.pool.query("SELECT COUNT(*) AS n FROM event WHERE id IN (?)", [
          made.map((event) => event.id),
        ]);
        const refused = new Set(answers.flatMap((answer) => answer.refused.map((r) => r.id)));
        expect((rows as { n: number }[])[0]?.n).toBe(made.filter((event) => !refused.has(event.id)).length);
        const { differences } = await checkProjections(app.database.db);
        expect(differences).toEqual([]);
      },
    ),
    { numRuns: 12 },
  );
  const [out] = await app.database.pool.query("SELECT COUNT(*) AS n FROM event WHERE counts = 0");
  changed = (out as { n: number }[])[0]?.n ?? 0;
  expect(taken).toBeGreaterThan(200);
  // Only meaningful if undos affected discrepancies.
  expect(changed).toBeGreaterThan(3);
}, 120_000);

test("an undo that races an observation of the same discrepancy is not lost, whichever is first", async () => {
  for (let round = 0; round < 40; round++) {
    const [a, b] = [eventWriter("ines"), eventWriter("maren")];
    const start = a.write("preflight.started", STARTED);
    const opening = a.write("discrepancy.opened", { ...OPENING, discrepancyId: newId(0) });
    opening.data = { ...opening.data, discrepancyId: opening.id } as never;
    const look = (writer: EventWriter, measure: string) =>
      writer.write("discrepancy.observed", {
        discrepancyId: opening.id,
        itemId: "k",
        state: "grown",
        measure,
      });
    const first = look(a, "3 mm");
    await acceptEvents(app.database.db, [start, opening, first], HOME);
    const started = b.write("preflight.started", STARTED);
    await Promise.all([
      acceptEvents(app.database.db, [a.write("item.undone", { eventId: first.id })], HOME),
      acceptEvents(app.database.db, [started, look(b, "5 mm")], HOME),
    ]);
  }
  expect((await checkProjections(app.database.db)).differences).toEqual([]);
}, 60_000);

test("ten discrepancies measured at once by many: every request succeeds", async () => {
  const owner = eventWriter("ines");
  const openings = Array.from({ length: 10 }, () => {
    const event = owner.write("discrepancy.opened", { ...OPENING, discrepancyId: newId(0) });
    return { ...event, data: { ...event.data, discrepancyId: event.id } } as PreflightEvent;
  });
  await acceptEvents(app.database.db, openings, HOME);
  const senders = Array.from({ length: 60 }, (_, i) => {
    const writer = eventWriter("maren");
    // Each in its own order.
    const mine = openings
      .map((opening, k) => ({ opening, at: (k * 7 + i * 3) % 10 }))
      .sort((x, y) => x.at - y.at);
    return mine.map(({ opening }) =>
      writer.write("discrepancy.observed", {
        discrepancyId: (opening.data as { discrepancyId: string }).discrepancyId,
        itemId: "k",
        state: "same",
      }),
    );
  });
  const answers = await Promise.all(senders.map((events) => app.request("/api/v1/events", { events })));
  expect(answers.map((answer) => answer.status)).toEqual(senders.map(() => 200));
  expect((await checkProjections(app.database.db)).differences).toEqual([]);
}, 60_000);
