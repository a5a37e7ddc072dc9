import type { Uncertain } from "../../units/uncertain";
import type { FuelEntry } from "./fuel-log";
import type { FuelEstimate } from "./fuel-sources";
import { reconcileUplift } from "./reconcile-uplift";

export interface CauseCase {
  /** Which source the others speak against; absent where nobody can tell. */
  odd?: FuelEstimate["odd"];
  /** What was dipped or seen, less what the log says, litres. */
  measuredLessLogL?: number;
  /** What should be there by the log, without the uplifts, and what was measured: to look for a slip in an uplift. */
  beforeUplifts?: Uncertain;
  measured?: Uncertain;
  uplifts?: readonly FuelEntry[];
  kgPerL: number;
}

/**
 * Why the sources disagree, the likeliest first, in words. One uplift booked with a slip that would explain it all comes before everything
 * else. Source: common practice; the arithmetic of `reconcileUplift`.
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
