import type { DiagnosisContext, Feature, Observation } from "./evidence/observations";
import { hiddenFaults } from "./hidden-faults";

const CONTEXT: DiagnosisContext = {
  cylinders: 4,
  fuelSystem: "carburettor",
  propeller: "constant speed",
  suction: true,
};
const seen = (feature: Feature, state: string, side?: "right" | "left"): Observation =>
  ({ feature, state, words: "", ...(side && { side }) }) as Observation;
const both = (feature: Feature, state: string) => [
  seen(feature, state, "right"),
  seen(feature, state, "left"),
];
const DROPS = [...both("drop", "usual"), ...both("feel", "smooth")];
const ids = (observations: Observation[], context = CONTEXT) =>
  hiddenFaults(observations, context).map(({ fault }) => fault);

test("without any observation every fault is hidden", () => {
  expect(ids([]).length).toBeGreaterThan(12);
  expect(ids([])).toEqual(expect.arrayContaining(["dead magneto", "induction leak", "governor slow"]));
});

test("a trace without idle and without exhaust temperatures cannot show an induction leak, and names the test that would", () => {
  const leak = hiddenFaults(DROPS, CONTEXT).find(({ fault }) => fault === "induction leak");
  expect(leak?.show).toContain("idle for half a minute after the run-up");
  const idle = [
    ...DROPS,
    ...both("exhaust", "hotter"),
    seen("idle", "in range"),
    seen("idleExhaust", "alike"),
  ];
  expect(ids(idle)).not.toContain("induction leak");
});

test("what was not done is not assessed: propeller, heat, gauges", () => {
  const hidden = hiddenFaults(DROPS, CONTEXT);
  const show = (fault: string) => hidden.find((one) => one.fault === fault)?.show;
  expect(show("governor slow")).toContain("Cycle the propeller");
  expect(show("heat cable off")).toContain("Carburettor heat");
  expect(show("suction low")).toContain("suction");
  expect(ids([...DROPS, seen("propeller", "answers")])).not.toContain("governor slow");
  expect(ids(DROPS, { ...CONTEXT, propeller: "fixed" })).not.toContain("governor slow");
});

test("a dead magneto is not hidden once both sides dropped; it is while one side is missing", () => {
  expect(ids(DROPS)).not.toContain("dead magneto");
  expect(ids([seen("idle", "in range")])).toContain("dead magneto");
});

test("more observations never hide more faults", () => {
  const all = [
    ...DROPS,
    ...both("exhaust", "hotter"),
    seen("heat", "drop"),
    seen("idle", "in range"),
    seen("idleExhaust", "alike"),
    seen("propeller", "answers"),
    seen("volts", "in range"),
    seen("suction", "in range"),
    seen("oilPressure", "in range"),
  ];
  for (let count = 0; count < all.length; count++) {
    const before = new Set(ids(all.slice(0, count)));
    expect(ids(all.slice(0, count + 1)).every((fault) => before.has(fault))).toBe(true);
  }
});
