import { FAULT_KINDS, type FaultKind, type SimulatedFault } from "@cravix/core/engine-model";
import type { RunUpProfile } from "@cravix/core/run-up";

/** Simulated faults possible on this engine. */
export function faultKindsOf(profile: RunUpProfile): FaultKind[] {
  const carburettor = profile.fuelSystem === "carburettor";
  return FAULT_KINDS.filter(
    (kind) =>
      !(kind === "governor slow" && profile.propeller === "fixed") &&
      !(kind === "suction low" && !profile.suction) &&
      !((kind === "carburettor ice" || kind === "heat cable off") && !carburettor),
  );
}

/** Visible only at altitude, so unsolvable at sea level. */
const NOT_BY_LOT: ReadonlySet<FaultKind> = new Set(["rich at altitude"]);

/** A fault with location and severity, and the noise seed. */
export interface RandomScenario {
  kind: FaultKind;
  side: "right" | "left";
  cylinder: number;
  severity: number;
  seed: number;
}

/** A random fault of random severity; none in one case of five. */
export function randomScenario(profile: RunUpProfile, random: () => number = Math.random): RandomScenario {
  const kinds = faultKindsOf(profile).filter((kind) => kind !== "none" && !NOT_BY_LOT.has(kind));
  const pick = (count: number) => Math.min(count - 1, Math.floor(random() * count));
  return {
    kind: random() < 0.2 ? "none" : (kinds[pick(kinds.length)] ?? "none"),
    side: random() < 0.5 ? "right" : "left",
    cylinder: 1 + pick(profile.cylinders),
    severity: 0.25 + 0.75 * random(),
    seed: 1 + pick(100_000),
  };
}

const PLACED: Partial<Record<FaultKind, "side" | "cylinder" | "plug">> = {
  "fouled plug": "plug",
  "dead plug": "plug",
  "dead magneto": "side",
  "hot magneto": "side",
  "timing off": "side",
  "induction leak": "cylinder",
  "sensor fault": "cylinder",
};

const FAULT_LABEL: Partial<Record<string, string>> = {
  none: "no fault",
  "dead plug": "dead plug or lead",
  "hot magneto": "magneto not grounded",
  "timing off": "magneto timing late",
  "rich at altitude": "too rich for altitude",
  "heat cable off": "carburettor heat not working",
  "regulator high": "regulator too high",
  "suction low": "low suction",
  "oil pressure low": "low oil pressure",
  "governor slow": "slow propeller governor",
  "idle low": "idle too low",
  "sensor fault": "faulty EGT probe",
};

/** Name of a simulated fault, in lower case. */
export function faultLabel(kind: string): string {
  return FAULT_LABEL[kind] ?? kind;
}

/** Name of the simulated fault with its location: "fouled plug, left, cylinder 3". */
export function simulatedFaultText(
  {
    fault,
    side,
    cylinder,
  }: { fault: Pick<SimulatedFault, "kind">; side: "right" | "left"; cylinder: number },
  words: { right: string; left: string },
): string {
  const placed = PLACED[fault.kind];
  return [
    faultLabel(fault.kind),
    ...(placed === "side" || placed === "plug" ? [words[side]] : []),
    ...(placed === "cylinder" || placed === "plug" ? [`cylinder ${cylinder}`] : []),
  ].join(", ");
}
