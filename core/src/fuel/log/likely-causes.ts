import type { Uncertain } from "../../units/uncertain";
import type { FuelEntry } from "./fuel-log";
import type { FuelEstimate } from "./fuel-sources";
import { reconcileUplift } from "./reconcile-uplift";

export interface CauseCase {
  /** Source the others contradict; absent if unknown. */
  odd?: FuelEstimate["odd"];
  /** Dipped or observed fuel less the log's, litres. */
  measuredLessLogL?: number;
  /** Expected fuel without the uplifts, and the measured fuel, for finding an error in an uplift. */
  beforeUplifts?: Uncertain;
  measured?: Uncertain;
  uplifts?: readonly FuelEntry[];
  kgPerL: number;
}

/**
 * Likely causes of a disagreement, most likely first, in words. A single uplift error that explains everything comes first.
 * Source: common practice; the arithmetic of `reconcileUplift`.
 */
export function likelyCauses({
  odd,
  measuredLessLogL,
  beforeUplifts,
  measured,
  uplifts = [],
  kgPerL,
}: CauseCase): string[] {
  const causes: string[] = [];
  const [only] = uplifts;
  if (only && uplifts.length === 1 && beforeUplifts && measured && only.amount > 0) {
    const { instead } = reconcileUplift(beforeUplifts, measured, only, kgPerL);
    for (const { why } of instead.slice(0, 2)) causes.push(`the uplift of ${only.at.slice(0, 10)}: ${why}`);
  }
  if (odd === "gauge") return [...causes, "a faulty gauge: use the dipstick and have the gauge checked"];
  if (odd === "dip" || odd === "sight" || odd === "mark")
    causes.push(
      "the dipstick was not vertical, or it belongs to another aircraft",
      "the aircraft is not level",
    );
  if (measuredLessLogL === undefined) return causes;
  if (measuredLessLogL < 0)
    return [
      ...causes,
      "a flight that was not logged",
      "a leak: check under the wings, the drains and the selector",
      "a filler cap off or not sealing: fuel siphons out in minutes",
      ...(uplifts.length > 0 ? ["an uplift that went into another aircraft or was logged twice"] : []),
    ];
  return [
    ...causes,
    "an uplift that was not logged",
    "less fuel burnt than logged",
    ...(odd === undefined ? ["the dipstick belongs to another aircraft"] : []),
  ];
}
