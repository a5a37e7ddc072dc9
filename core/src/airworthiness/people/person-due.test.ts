import { addMonths, endOfMonth, formatISO, parseISO } from "date-fns";
import fc from "fast-check";
import type { FlownByPerson, PersonDue, PersonFlight, PersonRecord } from "./person-due";
import { classOf, foldPerson, judgePerson, personSentence } from "./person-due";
import { pilotInDate } from "./pilot-in-date";

const source = { kind: "rule" as const, text: "example", example: true };
/** 14 CFR 61.57(a): three take-offs and landings within the preceding 90 days to carry passengers (from memory). */
const PASSENGERS: PersonDue = {
  id: "passengers",
  name: "Passenger recency",
  kind: "recency",
  limits: [{ by: "recency", times: 3, days: 90 }],
  for: ["passengers"],
  class: "single-engine",
  miss: "stop",
  source,
};
/** 61.57(b): the same at night (from memory). */
const NIGHT: PersonDue = {
  ...PASSENGERS,
  id: "night",
  limits: [{ by: "recency", times: 3, days: 90, night: true }],
  for: ["passengers", "night"],
};
const day = (date: string, landings: number, more: Partial<FlownByPerson> = {}): FlownByPerson => ({
  date,
  takeOffs: landings,
  landings,
  nightTakeOffs: 0,
  nightLandings: 0,
  class: "single-engine",
  ...more,
});
const flight = (more: Partial<PersonFlight> = {}): PersonFlight => ({
  today: "2026-06-01",
  ends: "2026-06-01",
  kinds: ["day", "passengers"],
  class: "single-engine",
  registration: "QX-TAR",
  ...more,
});
const judged = (record: Partial<PersonRecord>, at: PersonFlight = flight()) =>
  judgePerson({ items: [], works: [], flown: [], ...record }, at);

test("three landings on 3 March are valid to 1 June, the ninetieth day, and not to the second", () => {
  const record = { items: [PASSENGERS], flown: [day("2026-03-03", 3)] };
  expect(judged(record)[0]?.verdict).toMatchObject({ state: "in date", first: { left: 0 } });
  const [late] = judged(record, flight({ today: "2026-06-02", ends: "2026-06-02" }));
  expect(late?.verdict.state).toBe("overdue");
  expect(late && personSentence(late)).toContain("3 more are needed");
  // A flight past midnight ends on a day that is not covered.
  expect(judged(record, flight({ ends: "2026-06-02" }))[0]?.verdict.state).toBe("due within the flight");
});

test("two are not three; a glider's do not count; never flown is reported as unknown", () => {
  expect(judged({ items: [PASSENGERS], flown: [day("2026-05-30", 2)] })[0]?.verdict.state).toBe("overdue");
  const glider = [day("2026-05-30", 5, { class: "glider" })];
  const [none] = judged({ items: [PASSENGERS], flown: glider });
  expect(none?.verdict.state).toBe("overdue");
  expect(none && personSentence(none)).toContain("0 take-offs and 0 landings in the last 90 days");
});

test("not needed alone; at night it needs night landings", () => {
  const record = {
    items: [PASSENGERS, NIGHT],
    flown: [day("2026-05-30", 4, { nightLandings: 2, nightTakeOffs: 3 })],
  };
  const states = (kinds: PersonFlight["kinds"]) =>
    Object.fromEntries(
      judged(record, flight({ kinds })).map(({ item, verdict }) => [item.id, verdict.state]),
    );
  expect(states(["day"])).toEqual({ passengers: "not for this flight", night: "not for this flight" });
  expect(states(["day", "passengers"])).toEqual({ passengers: "in date", night: "not for this flight" });
  expect(states(["night", "passengers"])).toEqual({ passengers: "in date", night: "overdue" });
});

test("a review of 15 April 2025 is valid to the end of April 2027 (61.56, from memory; computed by date-fns)", () => {
  const review: PersonDue = {
    id: "review",
    name: "Flight review",
    kind: "review",
    limits: [{ by: "months", months: 24, to: "month end" }],
    miss: "stop",
    source,
  };
  const record = { items: [review], works: [{ item: "review", date: "2025-04-15" }] };
  const expected = formatISO(endOfMonth(addMonths(parseISO("2025-04-15"), 24)), { representation: "date" });
  expect(expected).toBe("2027-04-30");
  expect(judged(record)[0]?.next.points).toMatchObject([{ date: expected }]);
  expect(judged({ items: [review] })[0]?.verdict.state).toBe("not known");
});

test("a printed date is renewed by the work that sets the new one; an authorisation is for its aircraft only", () => {
  const medical: PersonDue = {
    id: "medical",
    name: "Medical",
    kind: "medical",
    limits: [{ by: "date", date: "2026-05-31" }],
    miss: "stop",
    source,
  };
  expect(judged({ items: [medical] })[0]?.verdict.state).toBe("overdue");
  const works = [{ item: "medical", date: "2026-05-20", sets: { date: "2027-05-31" } }];
  expect(judged({ items: [medical], works })[0]?.verdict.state).toBe("in date");
  const solo: PersonDue = {
    ...medical,
    id: "solo",
    kind: "authorisation",
    for: ["solo student"],
    aircraft: ["QX-TAR"],
  };
  const alone = flight({ kinds: ["day", "solo student"] });
  expect(judged({ items: [solo] }, alone)[0]?.verdict.state).toBe("overdue");
  // In another aircraft it says nothing, and then there is none on file. 14 CFR 61.87 (from memory).
  const [none, other] = judged({ items: [solo] }, { ...alone, registration: "QX-HLD" });
  expect([none?.item.id, none?.verdict.state]).toEqual(["solo-authorisation", "not known"]);
  expect(none && personSentence(none)).toContain("No instructor's authorisation");
  expect(other?.verdict.state).toBe("not for this flight");
  expect(other && personSentence(other)).toContain("QX-TAR");
});

test("one more landing never makes anybody less current", () => {
  const days = fc.array(
    fc.record({ ago: fc.integer({ min: 0, max: 200 }), landings: fc.integer({ min: 0, max: 4 }) }),
    { maxLength: 12 },
  );
  const at = (ago: number) => new Date(Date.UTC(2026, 5, 1) - ago * 86_400_000).toISOString().slice(0, 10);
  const until = (flown: FlownByPerson[]) =>
    judged({ items: [PASSENGERS], flown })[0]?.recency?.until ?? "0000-00-00";
  fc.assert(
    fc.property(days, fc.integer({ min: 0, max: 200 }), (history, ago) => {
      const flown = history.map((one) => day(at(one.ago), one.landings));
      expect(until([...flown, day(at(ago), 1)]) >= until(flown)).toBe(true);
      // Independent of the order in the log.
      expect(until([...flown].reverse())).toBe(until(flown));
    }),
  );
});

test("the latest version of an item counts; a type without oil and engine is a glider", () => {
  const twice = foldPerson([
    { type: "person.due-set", data: { item: PASSENGERS } },
    { type: "person.due-set", data: { item: { ...PASSENGERS, name: "Passengers" } } },
    { type: "person.due-set", data: { item: NIGHT } },
    { type: "person.due-dropped", data: { item: "night" } },
    { type: "person.done", data: { work: { item: "x", date: "2026-01-01" } } },
  ]);
  expect(twice.items.map(({ name }) => name)).toEqual(["Passengers"]);
  expect(twice.works).toHaveLength(1);
  expect(classOf({})).toBe("glider");
  expect(classOf({ oil: {}, engines: ["left", "right"] })).toBe("multi-engine");
  expect(classOf({ oil: {} })).toBe("single-engine");
});

test("at night only landings to a full stop count (14 CFR 61.57(b), from memory), and by aircraft only those on it", () => {
  const night: PersonDue = {
    ...NIGHT,
    limits: [{ by: "recency", times: 3, days: 90, night: true, fullStop: true }],
  };
  const kinds = ["night", "passengers"] as const;
  const of = (more: Partial<FlownByPerson>) =>
    judged(
      { items: [night], flown: [day("2026-05-30", 3, { nightTakeOffs: 3, nightLandings: 3, ...more })] },
      flight({ kinds }),
    )[0];
  expect(of({ nightFullStops: 3 })?.verdict.state).toBe("in date");
  const touched = of({ nightFullStops: 1 });
  expect(touched?.verdict.state).toBe("overdue");
  expect(touched && personSentence(touched)).toContain("1 landing to a full stop at night");
  // Not logged is not counted.
  expect(of({})?.verdict.state).toBe("overdue");
  const here: PersonDue = { ...PASSENGERS, aircraft: ["QX-TAR"] };
  const on = (registration: string) =>
    judged({ items: [here], flown: [day("2026-05-30", 3, { registration })] })[0]?.verdict.state;
  expect([on("QX-TAR"), on("QX-HLD")]).toEqual(["in date", "overdue"]);
});

test("launches count take-offs alone", () => {
  const launches: PersonDue = {
    ...PASSENGERS,
    limits: [{ by: "recency", times: 3, days: 90, launches: true }],
    class: "glider",
  };
  const [row] = judged(
    { items: [launches], flown: [day("2026-05-30", 1, { takeOffs: 3, class: "glider" })] },
    flight({ class: "glider" }),
  );
  expect(row?.verdict.state).toBe("in date");
});

/** 14 CFR 61.23(d), third class, from memory: under 40 on the day of the examination 60 calendar months, else 24. */
test.each([
  ["1986-06-02", "2026-06-01", "2031-06-30"],
  ["1986-06-01", "2026-06-01", "2028-06-30"],
  ["1950-01-01", "2026-06-01", "2028-06-30"],
])("a medical by age: born %s, examined %s, valid until %s", (born, examined, until) => {
  const medical: PersonDue = {
    id: "medical",
    name: "Medical",
    kind: "medical",
    limits: [{ by: "months", months: 24, to: "month end", younger: { born, under: 40, months: 60 } }],
    miss: "stop",
    source,
  };
  const [row] = judged({ items: [medical], works: [{ item: "medical", date: examined }] });
  expect(row?.next.points).toMatchObject([{ date: until }]);
});

test("a kind of flight that nobody has told makes an overdue item not known", () => {
  const towing: PersonDue = { ...PASSENGERS, for: ["towing"] };
  const of = (more: Partial<PersonFlight>) => judged({ items: [towing] }, flight(more))[0];
  expect(of({ untold: ["towing"] })?.verdict).toMatchObject({ state: "not known", untold: ["towing"] });
  expect(of({})?.verdict.state).toBe("not for this flight");
  expect(of({ kinds: ["day", "towing"] })?.verdict.state).toBe("overdue");
});

test("an examination before the holder was born cannot be calculated", () => {
  const medical: PersonDue = {
    ...PASSENGERS,
    kind: "medical",
    for: ["day"],
    limits: [
      {
        by: "months",
        months: 24,
        to: "month end",
        younger: { born: "2030-01-01", under: 40, months: 60 },
      },
    ],
  };
  const record = { items: [medical], works: [{ item: "passengers", date: "2026-01-01" }], flown: [] };
  expect(judged(record)[0]?.verdict).toMatchObject({ state: "not known" });
  expect(pilotInDate(record, flight())).toBe("ask");
});

test("a pilot for whom nothing on file applies to this flight is not in date by it", () => {
  const medical: PersonDue = { ...PASSENGERS, kind: "medical", limits: [{ by: "date", date: "2027-01-01" }] };
  const of = (items: PersonDue[], at = flight()) => pilotInDate({ items, works: [], flown: [] }, at);
  expect(of([medical])).toBe("within limits");
  expect(of([])).toBe("unjudged");
  expect(of([{ ...medical, aircraft: ["QX-HLD"] }])).toBe("unjudged");
  expect(of([medical], flight({ kinds: ["day"] }))).toBe("unjudged");
});
