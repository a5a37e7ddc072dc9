import fc from "fast-check";
import type { Source } from "../../judgement/judgement";
import type { FlightKind } from "../due/due-item";
import { deferralStatus } from "../life/deferral";
import {
  type DeferralNeeds,
  type DeferralQuestion,
  type DeferralRules,
  deferralFaults,
  type Equipment,
  type EquipmentList,
  maySignDeferral,
} from "./deferral-rules";
import { type DeferralCase, type DeferralReply, mayBeDeferred } from "./may-be-deferred";

const source: Source = { kind: "rule", text: "example", example: true };
const question = (id: string, more: Partial<DeferralQuestion>): DeferralQuestion => ({
  id,
  ask: `${id}?`,
  source,
  yes: { result: "not deferrable", why: id },
  no: { result: "not deferrable", why: id },
  ...more,
});
const needs: DeferralNeeds = { placard: true, deactivated: true, signedBy: ["pilot", "mechanic"] };

describe("a set of questions", () => {
  const two: DeferralRules = {
    questions: [
      question("first", { yes: { ask: "second" } }),
      question("second", { yes: { result: "deferrable", why: "so", needs } }),
    ],
  };

  it("is rejected at a question that leads nowhere, loops, is duplicated or never reached", () => {
    expect(deferralFaults(two)).toEqual([]);
    const [first, second] = two.questions as [DeferralQuestion, DeferralQuestion];
    expect(deferralFaults({ questions: [{ ...first, no: { ask: "third" } }, second] })).toEqual([
      { path: "questions[0].no.ask", expected: 'an existing question; "third" does not exist' },
    ]);
    expect(deferralFaults({ questions: [first, { ...second, no: { ask: "first" } }] })[0]?.path).toBe(
      "questions[0]",
    );
    expect(deferralFaults({ questions: [first, second, second] })[0]?.path).toBe("questions[2].id");
    expect(deferralFaults({ questions: [question("first", {}), second] })[0]?.path).toBe("questions[1]");
  });

  it("stops at the unanswered question and names it", () => {
    expect(
      mayBeDeferred({ rules: two, flight: ["day"], found: "2026-06-01", told: { first: "yes" } }),
    ).toMatchObject({
      open: { id: "second" },
      trail: [{ question: "first", answer: "yes", from: "told" }],
    });
  });

  it('ends in "ask first" for every "don\'t know", never in deferrable', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom<DeferralReply>("yes", "no", "unknown"), { minLength: 2, maxLength: 2 }),
        ([a, b]) => {
          const outcome = mayBeDeferred({
            rules: two,
            flight: ["day"],
            found: "2026-06-01",
            told: { first: a as DeferralReply, second: b as DeferralReply },
          });
          if (outcome.trail.some(({ answer }) => answer === "unknown"))
            expect(outcome.result).toBe("ask first");
          if (outcome.result === "deferrable") expect([a, b]).toEqual(["yes", "yes"]);
        },
      ),
    );
  });
});

describe("answers from data", () => {
  const lamp: Equipment = { id: "lamp", name: "Lamp", what: "lamp", items: ["nose.lamp"], requiredFor: [] };
  const list: EquipmentList = { equipment: [lamp], never: ["tail.spar"] };
  const rules: DeferralRules = {
    questions: [
      question("rule", {
        by: "required by rule",
        yes: { result: "not deferrable", why: "required" },
        no: { result: "deferrable", why: "not required", needs },
      }),
    ],
    required: [{ what: "lamp", for: ["night"], certifiedAfter: "1996-03-11", source }],
  };
  const ask = (flight: FlightKind[], more: Partial<DeferralCase> = {}) =>
    mayBeDeferred({ rules, list, itemId: "nose.lamp", flight, found: "2026-06-01", ...more });

  it("a rule for later certificated aircraft depends on the certification date; without one it is asked", () => {
    expect(ask(["day"]).result).toBe("deferrable");
    expect(ask(["night"]).open?.id).toBe("rule");
    expect(ask(["night"], { list: { ...list, certified: "1996-03-11" } }).result).toBe("deferrable");
    expect(ask(["night"], { list: { ...list, certified: "2004-01-01" } }).result).toBe("not deferrable");
  });

  it("a rule that applies anyway is not hidden by one that depends on a missing date", () => {
    const both: DeferralRules = {
      ...rules,
      required: [...(rules.required ?? []), { what: "lamp", for: ["night"], source }],
    };
    expect(
      mayBeDeferred({ rules: both, list, itemId: "nose.lamp", flight: ["night"], found: "2026-06-01" })
        .result,
    ).toBe("not deferrable");
  });

  it("a directive not on file may still exist: it is asked", () => {
    const directive: DeferralRules = { questions: [question("ad", { by: "required by directive" })] };
    const about = {
      rules: directive,
      itemId: "nose.lamp",
      flight: ["day"] as FlightKind[],
      found: "2026-06-01",
    };
    expect(mayBeDeferred({ ...about, list }).open?.id).toBe("ad");
    const ordered = { ...list, equipment: [{ ...lamp, directive: "2024-07" }] };
    expect(mayBeDeferred({ ...about, list: ordered })).toMatchObject({
      result: "not deferrable",
      trail: [{ from: "data", because: "Directive 2024-07 requires it." }],
    });
  });

  it("the minimum equipment list: its category runs from the day after discovery, and enough must remain", () => {
    const minimum: DeferralRules = {
      categories: [{ id: "B", days: 3 }],
      questions: [
        question("enough", {
          by: "enough left by the minimum list",
          yes: { result: "deferrable", why: "by the list", needs },
        }),
      ],
    };
    const about = (required: number) =>
      mayBeDeferred({
        rules: minimum,
        list,
        itemId: "nose.lamp",
        flight: ["day"],
        found: "2026-02-27",
        broken: 1,
        minimum: [{ equipment: "lamp", category: "B", installed: 2, required, operations: "Not at night." }],
      });
    expect(about(1)).toMatchObject({
      result: "deferrable",
      until: "2026-03-02",
      operations: "Not at night.",
    });
    expect(about(2).result).toBe("not deferrable");
  });

  it("a category without days asks for the last day", () => {
    const minimum: DeferralRules = {
      categories: [{ id: "A" }],
      questions: [
        question("listed", {
          by: "on the minimum list",
          yes: { result: "deferrable", why: "by the list", needs },
        }),
      ],
    };
    const entry = { equipment: "lamp", category: "A", installed: 1, required: 0 };
    const about = {
      rules: minimum,
      list,
      itemId: "nose.lamp",
      flight: ["day"] as FlightKind[],
      found: "2026-02-27",
    };
    expect(mayBeDeferred({ ...about, minimum: [entry] })).toMatchObject({
      result: "deferrable",
      needsDate: true,
    });
    expect(mayBeDeferred({ ...about, minimum: [{ ...entry, days: 2 }] })).toMatchObject({
      until: "2026-03-01",
    });
  });

  it("several on the equipment list: how many must work decides, with those out already", () => {
    const two = {
      ...list,
      equipment: [{ ...lamp, requiredFor: ["day" as const], installed: 2, mustWork: 1 }],
    };
    const byList: DeferralRules = {
      questions: [
        question("list", {
          by: "required by its list",
          no: { result: "deferrable", why: "enough left", needs },
        }),
      ],
    };
    const with2 = (broken: number | undefined, out: number) =>
      mayBeDeferred({
        rules: byList,
        list: two,
        itemId: "nose.lamp",
        flight: ["day"],
        found: "2026-06-01",
        out,
        ...(broken !== undefined && { broken }),
      });
    expect(with2(undefined, 0).count).toEqual({ installed: 2, out: 0 });
    expect(with2(1, 0).result).toBe("deferrable");
    expect(with2(1, 1).result).toBe("not deferrable");
    expect(with2(2, 0).result).toBe("not deferrable");
  });

  it("a rule for later built aircraft depends on the year; in its own year it is asked", () => {
    const built: DeferralRules = {
      ...rules,
      required: [{ what: "lamp", for: ["day"], builtAfter: "1978-07-18", source }],
    };
    const of = (year?: string) => ask(["day"], { rules: built, ...(year !== undefined && { built: year }) });
    expect(of().open?.id).toBe("rule");
    expect(of("1978").open?.id).toBe("rule");
    expect(of("1977").result).toBe("deferrable");
    expect(of("1979").result).toBe("not deferrable");
  });
});

test("without any deferral rules it is ask first", () => {
  expect(mayBeDeferred({ flight: ["day"], found: "2026-06-01" })).toMatchObject({
    result: "ask first",
    trail: [],
  });
});

test("a deferral holds under its own rule set, and a limit on a meter that is not known asks", () => {
  const deferral = { basis: "b", rules: "example", for: ["day" as const] };
  const flight = { date: "2026-06-01", kinds: ["day" as const] };
  expect(deferralStatus(deferral, { ...flight, rules: "example" }).state).toBe("holds");
  expect(deferralStatus(deferral, { ...flight, rules: "other" }).state).toBe("asked anew");
  const metered = { ...deferral, reading: { meter: "hours", at: 1010 } };
  expect(deferralStatus(metered, flight).state).toBe("asked anew");
  expect(deferralStatus(metered, { ...flight, totals: { hours: 1009 } }).state).toBe("holds");
  expect(deferralStatus(metered, { ...flight, totals: { hours: 1011 } }).state).toBe("ended");
});

test("a student never signs a deferral; maintenance is a mechanic's", () => {
  const roles = ["student", "pilot", "instructor", "mechanic", "owner", "administrator"] as const;
  const may = (signedBy: Parameters<typeof maySignDeferral>[1]) =>
    roles.filter((role) => maySignDeferral(role, signedBy));
  expect(may(["pilot", "mechanic"])).toEqual(["pilot", "instructor", "mechanic", "owner"]);
  expect(may(["mechanic"])).toEqual(["mechanic"]);
  expect(may(["instructor"])).toEqual(["instructor"]);
});
