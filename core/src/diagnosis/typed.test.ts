import { CASE_ENGINES } from "../testing/run-up-cases";
import {
  afterRemedy,
  diagnose,
  diagnosisReport,
  feelQuestion,
  type Observation,
  observeTyped,
  type TypedRunUp,
} from "./index";

const { profile, shape } = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
const LIMITS = { maxDropRpm: 125, maxDifferenceRpm: 50, resolutionRpm: 10 };
const CONTEXT = {
  cylinders: 0,
  fuelSystem: shape.fuelSystem,
  propeller: shape.propeller,
  suction: shape.vacuumPump,
};
const seen = (typed: TypedRunUp) => observeTyped(typed, profile, LIMITS);
const states = (typed: TypedRunUp) => seen(typed).map(({ side, state }) => `${side} ${state}`);
const felt = (typed: TypedRunUp, answer: "Rough" | "Smooth"): Observation[] => {
  const observations = seen(typed);
  const told = feelQuestion(observations)?.answers.find(({ words }) => words === answer)?.told ?? [];
  return [...observations, ...told];
};

describe("entered numbers in the words of the fault library", () => {
  it.each<[string, TypedRunUp, string[]]>([
    ["as ever", { base: 1800, right: 1730, left: 1720 }, ["right usual", "left usual"]],
    ["at the limit", { base: 1800, right: 1675, left: 1700 }, ["right usual", "left usual"]],
    ["over the limit", { base: 1800, right: 1730, left: 1640 }, ["right usual", "left over"]],
    ["far apart", { base: 1800, right: 1770, left: 1700 }, ["right usual", "left uneven"]],
    ["nothing dropped", { base: 1800, right: 1795, left: 1730 }, ["right none", "left usual"]],
    ["", { base: 1800, right: 1730, left: 0 }, ["right usual", "left quit"]],
    ["one side only", { base: 1800, left: 1730 }, ["left usual"]],
  ])("%s", (_, typed, expected) => {
    expect(states(typed)).toEqual(expected);
  });

  it("ask once how the engine ran on the side with the finding, and nothing else", () => {
    expect(feelQuestion(seen({ base: 1800, right: 1730, left: 1720 }))).toBeUndefined();
    const over = { base: 1800, right: 1730, left: 1640 };
    expect(feelQuestion(seen(over), { right: "R", left: "L" })?.words).toBe("How did the engine run on L?");
    expect(feelQuestion(felt(over, "Rough"))).toBeUndefined();
  });
});

describe("the most likely cause from entered numbers", () => {
  const best = (observations: Observation[]) => diagnosisReport(observations, CONTEXT).ranked[0];

  it("is no fault where both sides drop normally", () => {
    expect(best(seen({ base: 1800, right: 1730, left: 1720 }))?.fault).toBeUndefined();
  });

  // Common practice: a rough drop over the limit is a plug, a smooth one timing or mixture; an engine that stops has a dead
  // magneto.
  it("over and rough is a plug of that side, smooth points to timing, stopped is a dead magneto", () => {
    const over = { base: 1800, right: 1730, left: 1640 };
    const rough = best(felt(over, "Rough"));
    expect(rough?.fault).toMatch(/plug/);
    // Cylinders cannot be told apart, so none is named.
    expect(rough?.name).toBe("fouled plug, left magneto");
    const chance = (observations: Observation[], fault: string) =>
      diagnose(observations, CONTEXT)
        .ranked.filter((one) => one.fault?.id === fault)
        .reduce((sum, { probability }) => sum + probability, 0);
    expect(chance(felt(over, "Rough"), "fouled plug")).toBeGreaterThan(0.7);
    expect(chance(felt(over, "Smooth"), "fouled plug")).toBeLessThan(0.5);
    expect(chance(felt(over, "Smooth"), "timing off")).toBeGreaterThan(
      10 * chance(felt(over, "Rough"), "timing off"),
    );
    expect(best(seen({ base: 1800, right: 1730, left: 0 }))?.name).toBe("dead left magneto");
  });

  it("clearing is the most useful next test, and its result counts", () => {
    const before = felt({ base: 1800, right: 1730, left: 1640 }, "Rough");
    expect(diagnosisReport(before, CONTEXT).next[0]?.id).toBe("clear");
    const dead = (observations: Observation[]) =>
      diagnose(observations, CONTEXT).ranked.find(({ fault }) => fault?.id === "dead plug")?.probability ?? 0;
    const remedy = { observations: before, remedy: "cleared" } as const;
    const gone = afterRemedy(remedy, seen({ base: 1800, right: 1730, left: 1720 }));
    const same = afterRemedy(remedy, felt({ base: 1800, right: 1730, left: 1645 }, "Rough"));
    expect([gone.remedied, same.remedied]).toEqual([true, false]);
    expect(dead(same.observations)).toBeGreaterThan(dead(before));
    expect(dead(gone.observations)).toBeLessThan(dead(before));
  });

  it("repeated feel after clearing counts once, and a repeated test by its last outcome", () => {
    const over = { base: 1800, right: 1730, left: 1640 };
    const rough = felt(over, "Rough");
    const feel = rough.filter(({ feature }) => feature === "feel");
    expect(feel).toHaveLength(1);
    const remedy = { observations: rough, remedy: "cleared" } as const;
    const once = afterRemedy(remedy, rough);
    expect(afterRemedy(remedy, rough, feel).observations).toEqual(once.observations);
    // Roughness was asked for the first time after the remedy, so there is nothing to compare with.
    const unfelt = { observations: seen(over), remedy: "cleared" } as const;
    expect(afterRemedy(unfelt, rough, feel).observations).toEqual(expect.arrayContaining(feel));
    const leaned = (state: "gone" | "same"): Observation => ({ feature: "leaned", state, words: state });
    const again = afterRemedy({ ...remedy, observations: [...rough, leaned("same")] }, rough, [
      leaned("gone"),
    ]);
    expect(again.observations.filter(({ feature }) => feature === "leaned")).toEqual([leaned("gone")]);
  });

  it("its probabilities add up to one without any cylinder", () => {
    const { ranked } = diagnose(felt({ base: 1800, right: 1730, left: 1640 }, "Rough"), CONTEXT);
    expect(ranked.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
    expect(ranked.every(({ cylinder }) => cylinder === undefined)).toBe(true);
    expect(ranked.filter(({ fault }) => fault?.id === "fouled plug")).toHaveLength(2);
  });
});
