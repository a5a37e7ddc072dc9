import {
  type DeferralCase,
  type DeferralReply,
  mayBeDeferred,
} from "@cravix/core/airworthiness/deferral/may-be-deferred";
import type { FlightKind } from "@cravix/core/airworthiness/due/due-item";
import { rules, rulesWithList, trainerEquipment, twinEquipment } from "./index";

/**
 * Worked cases, each with the deciding paragraph (14 CFR, from memory), for the trainer's and the twin's equipment lists and both
 * example rule sets. A person's answers are given; everything else comes from data.
 */
type Case = [
  what: string,
  item: string,
  flight: FlightKind[],
  told: Record<string, DeferralReply>,
  result: string,
  paragraph: string,
];

const SAFE = { directive: "no", safe: "yes", hazard: "yes" } as const;
const TRAINER: Case[] = [
  [
    "landing light, by day",
    "quick.landing",
    ["day"],
    SAFE,
    "deferrable",
    "91.213(d)(2): not required by day",
  ],
  [
    "landing light, by night",
    "quick.landing",
    ["night"],
    SAFE,
    "not deferrable",
    "91.213(d)(2)(ii): its equipment list",
  ],
  [
    "landing light, by day for hire",
    "left-leading.landing-light",
    ["day", "hire"],
    SAFE,
    "deferrable",
    "91.205(c)(4): for hire at night only",
  ],
  ["left position light, by day", "left-tip.light", ["day"], SAFE, "deferrable", "91.205(c)(2): night only"],
  ["left position light, by night", "left-tip.light", ["night"], SAFE, "not deferrable", "91.205(c)(2)"],
  [
    "beacon light, by day, certificated 1994",
    "tail.light",
    ["day"],
    SAFE,
    "deferrable",
    "91.205(b)(11): after 11 March 1996",
  ],
  ["beacon light, by night", "tail.light", ["night"], SAFE, "not deferrable", "91.205(c)(3)"],
  ["instrument lights, by day", "night.interior", ["day"], SAFE, "deferrable", "91.213(d)(2)"],
  ["pitot heat, by day", "cockpit.pitot-heat", ["day"], SAFE, "deferrable", "91.213(d)(2)"],
  [
    "pitot heat, on instruments",
    "cockpit.pitot-heat",
    ["instrument"],
    SAFE,
    "not deferrable",
    "91.213(d)(2)(ii)",
  ],
  ["a fuel gauge", "cockpit.gauge.left", ["day"], SAFE, "not deferrable", "91.205(b)(9)"],
  [
    "stall warner",
    "cockpit.stall-horn",
    ["day"],
    SAFE,
    "not deferrable",
    "91.213(d)(2)(i): type certification",
  ],
  [
    "emergency beacon, no exception",
    "right-side.beacon",
    ["day"],
    { ...SAFE, rule: "yes" },
    "not deferrable",
    "91.205(b)(15), 91.207(a)",
  ],
  [
    "emergency beacon, removed for repair",
    "right-side.beacon",
    ["day"],
    { ...SAFE, rule: "no" },
    "deferrable",
    "91.207(f)(10)",
  ],
  ["airspeed indicator", "instrument.airspeed", ["day"], SAFE, "not deferrable", "91.205(b)(1)"],
  ["altimeter", "run-up.altimeter", ["day"], SAFE, "not deferrable", "91.205(b)(2)"],
  ["magnetic compass", "instrument.compass", ["day"], SAFE, "not deferrable", "91.205(b)(3)"],
  ["tachometer", "magneto.base", ["day"], SAFE, "not deferrable", "91.205(b)(4)"],
  ["oil pressure gauge", "run-up.oil-pressure", ["day"], SAFE, "not deferrable", "91.205(b)(5)"],
  ["oil temperature gauge", "run-up.oil-temperature", ["day"], SAFE, "not deferrable", "91.205(b)(7)"],
  ["belts", "cockpit.belts", ["day"], SAFE, "not deferrable", "91.205(b)(13)"],
  [
    "attitude indicator, by day",
    "instrument.attitude",
    ["day"],
    SAFE,
    "deferrable",
    "91.205(d)(8): instrument only",
  ],
  [
    "attitude indicator, on instruments",
    "instrument.attitude",
    ["instrument"],
    SAFE,
    "not deferrable",
    "91.205(d)(8)",
  ],
  [
    "heading indicator, on instruments",
    "instrument.heading",
    ["instrument"],
    SAFE,
    "not deferrable",
    "91.205(d)(9)",
  ],
  [
    "turn coordinator, on instruments",
    "instrument.turn",
    ["instrument"],
    SAFE,
    "not deferrable",
    "91.205(d)(3)",
  ],
  ["VSI, by day", "instrument.climb", ["day"], SAFE, "deferrable", "91.205: not named"],
  ["VSI, on instruments", "instrument.climb", ["instrument"], SAFE, "deferrable", "91.205(d): not named"],
  ["timer, on instruments", "instrument.timer", ["instrument"], SAFE, "not deferrable", "91.205(d)(6)"],
  ["autopilot", "glass.autopilot", ["day"], SAFE, "deferrable", "91.213(d)(2)"],
  [
    "autopilot that nobody has made safe",
    "glass.autopilot",
    ["day"],
    { directive: "no", safe: "no" },
    "ask first",
    "91.213(d)(3)",
  ],
  [
    "autopilot that a directive wants",
    "glass.autopilot",
    ["day"],
    { directive: "yes" },
    "not deferrable",
    "91.213(d)(2)(iv)",
  ],
  [
    "autopilot, a hazard today",
    "glass.autopilot",
    ["day"],
    { ...SAFE, hazard: "no" },
    "not deferrable",
    "91.213(d)(4)",
  ],
  [
    "VOR 2, nobody knows of a directive",
    "instrument.receiver-two",
    ["day"],
    { directive: "unknown" },
    "ask first",
    "nothing uncertain is a go",
  ],
  ["a brake that drips", "right-gear.brake", ["day"], SAFE, "not deferrable", "91.213(d): equipment only"],
  ["a cut tyre", "left-gear.tyre", ["day"], SAFE, "not deferrable", "91.213(d): equipment only"],
  ["an aileron hinge", "left-aileron.hinges", ["day"], SAFE, "not deferrable", "91.213(d): equipment only"],
  [
    "a nick in the propeller",
    "propeller.blades",
    ["day"],
    SAFE,
    "not deferrable",
    "91.213(d): equipment only",
  ],
];
const DONE = { directive: "no", procedures: "yes" } as const;
const TWIN: Case[] = [
  [
    "one landing light of two, by night",
    "quick.landing",
    ["night"],
    DONE,
    "deferrable",
    "the list: 2 installed, 1 required, C",
  ],
  ["position light, by day", "left-tip.light", ["day"], DONE, "deferrable", "the list: C, not by night"],
  ["position light, by night", "left-tip.light", ["night"], DONE, "not deferrable", "the list: not by night"],
  ["pitot heat, by day", "quick.pitot-heat", ["day"], DONE, "deferrable", "the list: B"],
  [
    "pitot heat, on instruments",
    "quick.pitot-heat",
    ["instrument"],
    DONE,
    "not deferrable",
    "the list: not on instruments",
  ],
  [
    "a fuel gauge that the list does not name",
    "cockpit.gauge.left",
    ["day"],
    DONE,
    "not deferrable",
    "what is not fitted to the list has to work",
  ],
  ["cabin heater", "nose.heater", ["day"], DONE, "deferrable", "the list: D"],
  [
    "cabin heater, procedures not done",
    "nose.heater",
    ["day"],
    { directive: "no", procedures: "no" },
    "ask first",
    "91.213(a)(3)",
  ],
  ["a gear leg's up-lock", "left-gear.uplock", ["day"], DONE, "not deferrable", "equipment only"],
  ["transponder", "take-off.transponder", ["day"], DONE, "deferrable", "the list: A, one day"],
];

const outcome = ([, itemId, flight, told]: Case, more: Pick<DeferralCase, "rules" | "list" | "minimum">) =>
  mayBeDeferred({ itemId, flight, told, found: "2026-05-01", broken: 1, ...more });

test.each(TRAINER)("without a list: %s (%s)", (...one) => {
  const made = outcome(one, {
    rules: rules.deferral as NonNullable<typeof rules.deferral>,
    list: trainerEquipment,
  });
  expect([made.result, made.open?.id]).toEqual([one[4], undefined]);
  // Each answer shows its source.
  for (const answer of made.trail) expect(answer.source.text.length).toBeGreaterThan(5);
  if (made.result === "deferrable") expect(made.placard).toMatch(/INOPERATIVE|MISSING|NOT INSTALLED/);
});

test.each(TWIN)("with an approved minimum list: %s (%s)", (...one) => {
  const made = outcome(one, {
    rules: rulesWithList.deferral as NonNullable<typeof rules.deferral>,
    list: twinEquipment,
    minimum: twinEquipment.minimum ?? [],
  });
  expect([made.result, made.open?.id]).toEqual([one[4], undefined]);
});

test("the days of a category run from the day after discovery: B three, C ten, D a hundred and twenty, A its own", () => {
  const until = (itemId: string) =>
    outcome(["", itemId, ["day"], DONE, "", ""], {
      rules: rulesWithList.deferral as NonNullable<typeof rules.deferral>,
      list: twinEquipment,
      minimum: twinEquipment.minimum ?? [],
    }).until;
  expect(["quick.pitot-heat", "quick.landing", "nose.heater", "take-off.transponder"].map(until)).toEqual([
    "2026-05-04",
    "2026-05-11",
    "2026-08-29",
    "2026-05-02",
  ]);
});

test("what no list names is asked from the first question on", () => {
  const made = outcome(["", "own.seat-rail", ["day"], {}, "", ""], {
    rules: rules.deferral as NonNullable<typeof rules.deferral>,
    list: trainerEquipment,
  });
  expect(made).toMatchObject({ open: { id: "equipment" }, trail: [] });
});

describe("what the flight or the rule set does not say", () => {
  const about = (itemId: string, flight: FlightKind[], untold: FlightKind[]) =>
    mayBeDeferred({
      itemId,
      flight,
      untold,
      found: "2026-05-01",
      told: SAFE,
      rules: rules.deferral as NonNullable<typeof rules.deferral>,
      list: {
        ...trainerEquipment,
        equipment: [
          ...trainerEquipment.equipment,
          {
            id: "radio",
            name: "Radio",
            what: "radio",
            items: ["own.radio"],
            requiredFor: [],
            placard: "RADIO INOPERATIVE",
          },
          { id: "lamp", name: "Reading lamp", what: "reading lamp", items: ["own.lamp"], requiredFor: [] },
        ],
      },
    });

  it("a radio depends on the airfield, a transponder on the airspace: asked until it is told", () => {
    expect(about("own.radio", ["day"], ["towered airfield"])).toMatchObject({
      open: { id: "rule" },
      depends: ["towered airfield"],
    });
    expect(about("own.radio", ["day", "towered airfield"], []).result).toBe("not deferrable");
    expect(about("own.radio", ["day"], []).result).toBe("deferrable");
    expect(about("take-off.transponder", ["day"], ["transponder airspace"]).depends).toEqual([
      "transponder airspace",
    ]);
  });

  it("a rule with exceptions asks whether one holds, and its days count", () => {
    const rule = (itemId: string, answer?: DeferralReply) =>
      mayBeDeferred({
        itemId,
        flight: ["day", "transponder airspace"],
        told: { ...SAFE, ...(answer && { rule: answer }) },
        found: "2026-05-01",
        broken: 1,
        rules: rules.deferral as NonNullable<typeof rules.deferral>,
        list: trainerEquipment,
      });
    // 14 CFR 91.207(f)(10): removed for at most 90 days; 91.215(d)(2): by agreement with air traffic control (from memory).
    expect(rule("right-side.beacon").open?.id).toBe("rule");
    expect(rule("right-side.beacon").exceptions).toHaveLength(4);
    expect(rule("right-side.beacon", "no")).toMatchObject({ result: "deferrable", until: "2026-07-30" });
    expect(rule("take-off.transponder").exceptions?.[0]?.text).toContain("91.215(d)(2)");
    expect(rule("take-off.transponder", "yes").result).toBe("not deferrable");
    expect(rule("take-off.transponder", "no")).toMatchObject({ result: "deferrable" });
    expect(rule("take-off.transponder", "unknown").result).toBe("ask first");
  });

  it("equipment that no rule names is asked about: no rule on file is not no rule", () => {
    expect(about("own.lamp", ["day"], [])).toMatchObject({ open: { id: "rule" } });
  });
});

test("the second of two landing lights: the list counts what is out already", () => {
  const twin = (out: number, broken?: number) =>
    mayBeDeferred({
      itemId: "quick.landing",
      flight: ["day"],
      told: DONE,
      found: "2026-05-01",
      out,
      ...(broken !== undefined && { broken }),
      rules: rulesWithList.deferral as NonNullable<typeof rules.deferral>,
      list: twinEquipment,
      minimum: twinEquipment.minimum ?? [],
    });
  expect(twin(0)).toMatchObject({ count: { installed: 2, out: 0 } });
  expect(twin(0, 1).result).toBe("deferrable");
  expect(twin(0, 1).confirm?.[0]).toContain("pilot's side");
  expect(twin(1, 1)).toMatchObject({ result: "not deferrable" });
  expect(twin(1, 1).trail.at(-1)?.because).toBe("0 of 2 working, 1 required. 1 is out already.");
});
