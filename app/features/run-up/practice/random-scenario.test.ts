import { FAULT_KINDS } from "@cravix/core/engine-model";
import type { RunUpProfile } from "@cravix/core/run-up";
import { tarrow4 } from "@cravix/demo";
import { faultKindsOf, randomScenario, simulatedFaultText } from "./random-scenario";

const trainer = tarrow4.runUp as RunUpProfile;
const injected: RunUpProfile = {
  ...trainer,
  fuelSystem: "injected",
  suction: false,
  propeller: "constant speed",
};
const words = { right: "right", left: "left" };
/** A deterministic sequence of random numbers. */
const turns = () => {
  let n = 4711;
  return () => {
    n = (n * 16807) % 2147483647;
    return n / 2147483647;
  };
};

test("an engine has only faults that it can have", () => {
  expect(faultKindsOf(trainer)).not.toContain("propeller governor slow");
  expect(faultKindsOf(trainer)).toContain("carburettor ice");
  expect(faultKindsOf(injected)).toEqual(
    FAULT_KINDS.filter((kind) => !["suction low", "carburettor ice", "heat cable off"].includes(kind)),
  );
});

test("the lot draws every fault that shows at this field, now and then none, at places that the engine has", () => {
  const random = turns();
  const lots = Array.from({ length: 400 }, () => randomScenario(trainer, random));
  expect(new Set(lots.map(({ kind }) => kind))).toEqual(
    new Set(faultKindsOf(trainer).filter((kind) => kind !== "rich at altitude")),
  );
  const healthy = lots.filter(({ kind }) => kind === "none").length / lots.length;
  expect(healthy).toBeGreaterThan(0.1);
  expect(healthy).toBeLessThan(0.3);
  for (const { cylinder, severity } of lots) {
    expect(cylinder).toBeGreaterThanOrEqual(1);
    expect(cylinder).toBeLessThanOrEqual(trainer.cylinders);
    expect(severity).toBeGreaterThanOrEqual(0.25);
    expect(severity).toBeLessThanOrEqual(1);
  }
  expect(new Set(lots.map(({ side }) => side)).size).toBe(2);
});

test("the last number a die can give stays on the engine", () => {
  const lot = randomScenario(trainer, () => 0.999999);
  expect(lot.cylinder).toBe(trainer.cylinders);
  expect(faultKindsOf(trainer)).toContain(lot.kind);
});

test("what was simulated is reported with its place where it has one", () => {
  const at = { side: "left", cylinder: 3 } as const;
  expect(simulatedFaultText({ fault: { kind: "fouled plug" }, ...at }, words)).toBe(
    "fouled plug, left, cylinder 3",
  );
  expect(simulatedFaultText({ fault: { kind: "hot magneto" }, ...at }, words)).toBe(
    "magneto not grounded, left",
  );
  expect(simulatedFaultText({ fault: { kind: "induction leak" }, ...at }, words)).toBe(
    "induction leak, cylinder 3",
  );
  expect(simulatedFaultText({ fault: { kind: "none" }, ...at }, words)).toBe("no fault");
});
