import fc from "fast-check";
import { limitCertainty, MOST_BY_RATES } from "./certainty";
import { diagnose } from "./diagnose";
import {
  type DiagnosisContext,
  FEATURES,
  type Feature,
  MAGNETO_FEATURES,
  type Observation,
} from "./evidence/observations";
import { type Hypothesis, hypotheses } from "./hypotheses";

const CONTEXT: DiagnosisContext = {
  cylinders: 4,
  fuelSystem: "carburettor",
  propeller: "constant speed",
  suction: true,
};
const seen = (feature: Feature, state: string, side?: "right" | "left"): Observation =>
  ({ feature, state, words: "", ...(side && { side }) }) as Observation;
const sum = (ranked: readonly Hypothesis[]) => ranked.reduce((all, { probability }) => all + probability, 0);
const ofFault = (ranked: readonly Hypothesis[], id: string) =>
  sum(ranked.filter(({ fault }) => (fault?.id ?? "none") === id));

test("without any observation a healthy engine is likely, not more: only the rates say so", () => {
  const { ranked, byRates, restsOnRates } = diagnose([], CONTEXT);
  expect(restsOnRates).toBe(false);
  const usual = [seen("drop", "usual", "right"), seen("drop", "usual", "left"), seen("heat", "drop")];
  const some = diagnose(usual, CONTEXT);
  expect(byRates[0]?.probability).toBeLessThan(0.9);
  expect(ranked).toEqual(byRates);
  expect(some.byRates[0]?.probability).toBeGreaterThan(0.9);
  expect(some.ranked[0]?.fault).toBeUndefined();
  expect(some.ranked[0]?.probability).toBeCloseTo(MOST_BY_RATES, 10);
  expect(some.restsOnRates).toBe(true);
});

test("what the evidence alone carries is claimed, within three points of both rates", () => {
  const quit = [
    seen("drop", "quit", "right"),
    seen("exhaust", "colder", "right"),
    seen("drop", "none", "left"),
    seen("exhaust", "no change", "left"),
  ];
  const { ranked, byRates, restsOnRates } = diagnose(quit, CONTEXT);
  expect(restsOnRates).toBe(false);
  expect(ofFault(ranked, "dead magneto")).toBeGreaterThan(0.97);
  expect(Math.abs(ofFault(ranked, "dead magneto") - ofFault(byRates, "dead magneto"))).toBeLessThan(0.03);
});

const observation = fc
  .constantFrom(...(Object.keys(FEATURES) as Feature[]))
  .chain((feature) =>
    fc.record({
      feature: fc.constant(feature),
      state: fc.constantFrom(...(FEATURES[feature] as readonly string[])),
      side: fc.constantFrom("right" as const, "left" as const),
    }),
  )
  .map(({ feature, state, side }) => seen(feature, state, MAGNETO_FEATURES.has(feature) ? side : undefined));

test("limiting keeps the sum and the order of faults, and changes nothing below", () => {
  fc.assert(
    fc.property(fc.array(observation, { maxLength: 14 }), (observations) => {
      const { ranked, byRates } = diagnose(observations, CONTEXT);
      expect(sum(ranked)).toBeCloseTo(1, 9);
      const faults = [...new Set(byRates.map(({ fault }) => fault?.id ?? "none"))];
      const [first = "none"] = faults.sort((a, b) => ofFault(byRates, b) - ofFault(byRates, a));
      const before = ofFault(byRates, first);
      const after = ofFault(ranked, first);
      for (const other of faults.slice(1)) expect(ofFault(ranked, other)).toBeLessThanOrEqual(after + 1e-12);
      if (before <= MOST_BY_RATES) expect(ranked).toEqual(byRates);
      else expect(after).toBeGreaterThanOrEqual(MOST_BY_RATES - 1e-9);
      expect(after).toBeLessThanOrEqual(1);
    }),
    { numRuns: 200 },
  );
});

test("a certainty of one is spread when it rests on the rates", () => {
  const only = hypotheses(CONTEXT).map((one) => ({ ...one, probability: one.fault ? 0 : 1 }));
  const weighed = hypotheses(CONTEXT);
  const { ranked, restsOnRates } = limitCertainty(only, weighed, CONTEXT);
  expect(restsOnRates).toBe(true);
  expect(sum(ranked)).toBeCloseTo(1, 9);
});
