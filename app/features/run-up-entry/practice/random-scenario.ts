import { FAULT_KINDS, type FaultKind, type SimulatedFault } from "@cravix/core/engine-model";
import type { RunUpProfile } from "@cravix/core/run-up";

/** The stand-in's troubles that this engine can have. */
export function troublesOf(profile: RunUpProfile): FaultKind[] {
  const carburettor = profile.fuelSystem === "carburettor";
  return FAULT_KINDS.filter(
    (kind) =>
      !(kind === "governor slow" && profile.propeller === "fixed") &&
      !(kind === "suction low" && !profile.suction) &&
      !((kind === "carburettor ice" || kind === "heat cable off") && !carburettor),
  );
}

/** Shows in thin air only: drawn by lot at sea level it would be a riddle without an answer. */
const NOT_BY_LOT: ReadonlySet<FaultKind> = new Set(["rich at altitude"]);

/** A trouble with its place, how plain it is, and the noise that it comes with. */
export interface Lot {
  kind: FaultKind;
  side: "right" | "left";
  cylinder: number;
  severity: number;
  seed: number;
}

/** A trouble by lot, from just there to plain; one in five is none. */
export function randomScenario(profile: RunUpProfile, random: () => number = Math.random): Lot {
  const kinds = troublesOf(profile).filter((kind) => kind !== "none" && !NOT_BY_LOT.has(kind));
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

export function troubleWord(kind: string): string {
  return kind === "none" ? "no fault" : kind;
}

/** What was planted, with its place: "fouled plug, left, cylinder 3". */
export function plantedWords(
  {
    fault,
    side,
    cylinder,
  }: { fault: Pick<SimulatedFault, "kind">; side: "right" | "left"; cylinder: number },
  words: { right: string; left: string },
): string {
  const placed = PLACED[fault.kind];
  return [
    troubleWord(fault.kind),
    ...(placed === "side" || placed === "plug" ? [words[side]] : []),
    ...(placed === "cylinder" || placed === "plug" ? [`cylinder ${cylinder}`] : []),
  ].join(", ");
}
