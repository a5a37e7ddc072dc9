import fc from "fast-check";
import type { EventData, EventType, PreflightEvent } from "./stream/events";
import { foldDiscrepancies } from "./stream/fold-discrepancies";
import { foldIncrementally, foldPreflight } from "./stream/fold-preflight";
import { undoEvent } from "./stream/undo";

const WALK = "walk-1";
let count = 0;
/** An event one second after the previous one; `more` overrides id, stream or rules. */
function by<T extends EventType>(
  crewId: string,
  type: T,
  data: EventData[T],
  more: Partial<PreflightEvent> = {},
): PreflightEvent {
  count++;
  return {
    id: `e-${String(count).padStart(6, "0")}`,
    type,
    streamId: WALK,
    deviceId: "device",
    crewId,
    at: new Date(Date.UTC(2026, 4, 1) + count * 1000).toISOString(),
    data,
    ...more,
  } as PreflightEvent;
}
const start = (crewId = "pilot", more: Partial<PreflightEvent> = {}) =>
  by(crewId, "preflight.started", { registration: "QX-TST", listHash: "h", conditions: [] }, more);
const answer = (crewId: string, itemId: string) =>
  by(crewId, "item.answered", { itemId, outcome: "checked" });
const undo = (crewId: string, slip: PreflightEvent, more: Partial<PreflightEvent> = {}) =>
  by(crewId, "item.undone", { eventId: slip.id }, more);
const sign = (crewId: string, decision: "fly" | "not flying", more: Partial<PreflightEvent> = {}) =>
  by(crewId, "verdict.signed", { verdict: "go", decision, reasons: [] }, more);
const FINDING = { registration: "QX-TST", stationId: "left", text: "brake line wet", grade: "stop" } as const;
/** A discrepancy whose id is that of its event. */
function find(crewId: string, more: Partial<PreflightEvent> = {}): PreflightEvent {
  const event = by(crewId, "discrepancy.opened", { discrepancyId: "", ...FINDING }, more);
  return { ...event, data: { ...event.data, discrepancyId: event.id } } as PreflightEvent;
}
const withdraw = (crewId: string, opening: PreflightEvent) =>
  by(crewId, "discrepancy.withdrawn", { discrepancyId: opening.id });
const fold = (...events: PreflightEvent[]) => foldPreflight(WALK, events);

describe("an undo", () => {
  test("counts from the person who answered and the preflight's pilot only", () => {
    const [begin, given] = [start(), answer("student", "tyre")];
    expect(fold(begin, given, undo("student", given)).answers).toEqual({});
    expect(fold(begin, given, undo("pilot", given)).answers).toEqual({});
    expect(fold(begin, given, undo("somebody", given)).answers.tyre).toBeDefined();
  });

  test("counts from the person who answered when another held the device", () => {
    const given = by("pilot", "item.answered", { itemId: "tyre", outcome: "checked", byCrewId: "second" });
    expect(fold(start(), given, undo("second", given)).answers).toEqual({});
  });

  test("counts in its own stream only", () => {
    const given = answer("pilot", "tyre");
    const elsewhere = undo("pilot", given, { streamId: "walk-2" });
    expect(fold(start(), given, elsewhere).answers.tyre).toBeDefined();
    const opening = find("pilot");
    const look = by("pilot", "discrepancy.observed", {
      discrepancyId: opening.id,
      itemId: "k",
      state: "grown",
    });
    const other = undo("pilot", look, { streamId: "walk-2" });
    expect(foldDiscrepancies([start(), opening, look, other])[0]?.observations).toHaveLength(1);
    expect(foldDiscrepancies([start(), opening, look, undo("pilot", look)])[0]?.observations).toEqual([]);
  });

  test("cannot reach before the signature, but can undo later answers", () => {
    const events = [start(), answer("pilot", "tyre"), sign("pilot", "fly"), answer("pilot", "cover")];
    const [, before, , after] = events as [PreflightEvent, PreflightEvent, PreflightEvent, PreflightEvent];
    const state = fold(...events, undo("pilot", before), undo("pilot", after));
    expect(Object.keys(state.answers)).toEqual(["tyre"]);
  });

  test.each(["a beginning", "a finding", "a sign-off", "a signature"])("never reaches %s", (what) => {
    const begin = start();
    const opening = find("pilot");
    const closing = by("mechanic", "discrepancy.closed", { discrepancyId: opening.id, how: "line changed" });
    const signed = sign("pilot", "not flying");
    const events = [begin, opening, closing, signed];
    const target = events[["a beginning", "a finding", "a sign-off", "a signature"].indexOf(what)];
    const all = [
      ...events,
      undo("pilot", target as PreflightEvent),
      undo("mechanic", target as PreflightEvent),
    ];
    expect(fold(...all)).toMatchObject({ registration: "QX-TST", signed: { decision: "not flying" } });
    expect(foldDiscrepancies(all)).toEqual([
      expect.objectContaining({
        text: "brake line wet",
        closed: expect.objectContaining({ crewId: "mechanic" }),
      }),
    ]);
  });
});

describe("a finding", () => {
  test("is withdrawn before the signature by the person who logged it, and stays on record as withdrawn", () => {
    const [begin, opening] = [start(), find("student")];
    const all = [begin, opening, withdraw("student", opening)];
    expect(fold(...all).discrepancies).toEqual([]);
    expect(foldDiscrepancies(all)[0]).toMatchObject({ withdrawn: { crewId: "student" } });
    // Not the pilot of the preflight, nor anyone else; not after the signature; not from another preflight.
    const signed = [begin, opening, sign("pilot", "fly"), withdraw("student", opening)];
    const elsewhere = { ...withdraw("student", opening), streamId: "walk-2" };
    for (const events of [
      [begin, opening, withdraw("pilot", opening)],
      [begin, opening, withdraw("somebody", opening)],
      [begin, opening, elsewhere],
      signed,
    ]) {
      expect(fold(...events).discrepancies).toHaveLength(1);
      expect(foldDiscrepancies(events)[0]?.withdrawn).toBeUndefined();
    }
  });

  test("cannot be replaced by another event that claims its id", () => {
    const opening = find("pilot");
    const claim = (id: string) =>
      by(
        "somebody",
        "discrepancy.opened",
        { ...FINDING, discrepancyId: opening.id, text: "nothing" },
        {
          id,
          streamId: "walk-2",
        },
      );
    for (const id of ["a-first", "z-last"])
      for (const events of [
        [opening, claim(id)],
        [claim(id), opening],
      ])
        expect(foldDiscrepancies(events)).toEqual([
          expect.objectContaining({ id: opening.id, text: "brake line wet", openedBy: "pilot" }),
        ]);
  });

  test("is signed off once: a second sign-off does not replace the first", () => {
    const opening = find("pilot");
    const first = by("kofi", "discrepancy.closed", { discrepancyId: opening.id, how: "line changed" });
    const second = by("other", "discrepancy.closed", { discrepancyId: opening.id, how: "looks fine" });
    expect(foldDiscrepancies([second, opening, first])[0]?.closed).toMatchObject({ crewId: "kofi" });
  });
});

describe("a signature", () => {
  test("is the pilot's; a signature by another person, or a later one, is an amendment", () => {
    const events = [start(), sign("somebody", "fly"), sign("pilot", "not flying"), sign("pilot", "fly")];
    const state = fold(...events);
    expect(state.signed).toMatchObject({ crewId: "pilot", decision: "not flying" });
    expect(state.amendments.map(({ crewId, decision }) => [crewId, decision])).toEqual([
      ["somebody", "fly"],
      ["pilot", "fly"],
    ]);
  });

  test("cannot be taken by starting the preflight again under an earlier id", () => {
    const begin = start("pilot", { id: WALK });
    const thief = start("thief", { id: "0-earlier" });
    const state = fold(thief, begin, sign("thief", "fly"));
    expect(state).toMatchObject({ crewId: "pilot" });
    expect(state.signed).toBeUndefined();
  });
});

describe("undo on the screen", () => {
  test("offers what this person may undo; a finding is withdrawn", () => {
    const [begin, given, opening] = [start(), answer("student", "tyre"), find("student")];
    expect(undoEvent(fold(begin, given), "student")).toEqual({
      type: "item.undone",
      data: { eventId: given.id },
    });
    expect(undoEvent(fold(begin, given), "pilot")?.type).toBe("item.undone");
    expect(undoEvent(fold(begin, given), "somebody")).toBeUndefined();
    expect(undoEvent(fold(begin, given), null)).toBeUndefined();
    expect(undoEvent(fold(begin, opening), "student")).toEqual({
      type: "discrepancy.withdrawn",
      data: { discrepancyId: opening.id },
    });
    expect(undoEvent(fold(begin, opening), "pilot")).toBeUndefined();
    expect(undoEvent(fold(begin, given, sign("pilot", "fly")), "pilot")).toBeUndefined();
  });
});

/** Recorded before these rules existed: an opening with its own id, undone by another device, and signed by two people. */
describe("records made before the rules existed", () => {
  const old = { rules: 1 } as const;
  test("keep their meaning: an undone finding is gone, the last signature stands", () => {
    const begin = start("pilot", old);
    const opening = by("pilot", "discrepancy.opened", { ...FINDING, discrepancyId: "d" }, old);
    const undone = undo("student", opening, { ...old, streamId: "walk-2" });
    expect(foldDiscrepancies([begin, opening, undone])).toEqual([]);
    const given = answer("pilot", "tyre");
    expect(fold(begin, { ...given, ...old }, undo("student", given, old)).answers).toEqual({});
    const state = fold(begin, sign("pilot", "not flying", old), sign("instructor", "fly", old));
    expect(state.signed).toMatchObject({ crewId: "instructor", decision: "fly" });
  });

  test("cannot be exploited by a later signature", () => {
    const events = [start("pilot", old), sign("instructor", "fly", old), sign("pilot", "not flying")];
    expect(fold(...events).signed).toMatchObject({ crewId: "instructor" });
    expect(fold(...events).amendments).toHaveLength(1);
  });
});

test("any order of events by any people folds one by one to the same state as all at once", () => {
  const person = fc.constantFrom("pilot", "student", "somebody");
  const step = fc.record({
    who: person,
    what: fc.constantFrom("answer", "find", "look", "undo", "withdraw", "sign", "start"),
    which: fc.nat(40),
  });
  let counted = 0;
  fc.assert(
    fc.property(fc.array(step, { minLength: 5, maxLength: 40 }), fc.array(fc.nat(99)), (steps, cards) => {
      const events: PreflightEvent[] = [start()];
      for (const { who, what, which } of steps) {
        const target = events[which % events.length] as PreflightEvent;
        if (what === "answer") events.push(answer(who, `item-${which % 5}`));
        else if (what === "find") events.push(find(who));
        else if (what === "look")
          events.push(
            by(who, "discrepancy.observed", { discrepancyId: target.id, itemId: "k", state: "same" }),
          );
        else if (what === "undo") events.push(undo(who, target));
        else if (what === "withdraw")
          events.push(withdraw(who, events.findLast((e) => e.type === "discrepancy.opened") ?? target));
        else events.push(what === "sign" ? sign(who, "fly") : start(who));
      }
      const whole = fold(...events);
      const shuffled = [...events];
      cards.forEach((card, i) => {
        const [a, b] = [i % shuffled.length, card % shuffled.length];
        [shuffled[a], shuffled[b]] = [shuffled[b] as PreflightEvent, shuffled[a] as PreflightEvent];
      });
      expect(fold(...shuffled)).toEqual(whole);
      expect(foldDiscrepancies(shuffled)).toEqual(foldDiscrepancies(events));
      let folded = foldIncrementally(undefined, WALK, []);
      for (let n = 1; n <= shuffled.length; n++) {
        folded = foldIncrementally(folded, WALK, shuffled.slice(0, n));
        expect(folded.state).toEqual(foldPreflight(WALK, shuffled.slice(0, n)));
      }
      // Only the pilot's signature counts, and a discrepancy is withdrawn only by its author.
      if (whole.signed) expect(whole.signed.crewId).toBe("pilot");
      for (const opened of events.filter((e) => e.type === "discrepancy.opened")) {
        const withdrawn = foldDiscrepancies(events).find((d) => d.id === opened.id)?.withdrawn;
        if (withdrawn) {
          counted++;
          expect(withdrawn.crewId).toBe(opened.crewId);
        }
      }
    }),
    { numRuns: 200 },
  );
  expect(counted).toBeGreaterThan(10);
});
