import type { Side } from "../run-up/reading/run-up-reading";
import type { DiagnosisContext } from "./evidence/observations";
import { FAULTS, type Fault, UNKNOWN_FAULT } from "./fault-library";

/** One explanation: a fault at a location, or none. */
export interface Hypothesis {
  /** Absent for the healthy engine. */
  fault?: Fault;
  side?: Side;
  cylinder?: number;
  probability: number;
}

/**
 * Every explanation for this engine with its prior probability, summing to one. Source: own estimates of relative rates (common
 * practice), as given in the fault library.
 */
export function hypotheses(context: DiagnosisContext): Hypothesis[] {
  const found: Hypothesis[] = [];
  let all = 0;
  for (const fault of [...FAULTS, UNKNOWN_FAULT]) {
    if (fault.only && !fault.only(context)) continue;
    const rate = fault.rate * today(fault, context);
    all += rate;
    const sides: (Side | undefined)[] =
      fault.place === "side" || fault.place === "plug" ? ["right", "left"] : [undefined];
    const cylinders =
      (fault.place === "cylinder" || fault.place === "plug") && context.cylinders > 0
        ? Array.from({ length: context.cylinders }, (_, i) => i + 1)
        : [undefined];
    for (const side of sides)
      for (const cylinder of cylinders)
        found.push({
          fault,
          probability: rate / (sides.length * cylinders.length),
          ...(side && { side }),
          ...(cylinder !== undefined && { cylinder }),
        });
  }
  found.push({ probability: 1 - all });
  return found;
}

/** Adjusts a rate to the conditions: a mixture left rich at altitude, or air that can form carburettor ice. */
function today(fault: Fault, { highAndRich, icingLikely }: DiagnosisContext): number {
  if (fault.id === "rich at altitude") return highAndRich === undefined ? 1 : highAndRich ? 12 : 0.05;
  if (fault.id === "carburettor ice") return icingLikely === undefined ? 1 : icingLikely ? 2 : 0.15;
  return 1;
}
