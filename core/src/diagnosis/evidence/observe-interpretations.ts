import type { ReadWay } from "../../run-up/reading/read-run-up";
import type { RunUpReading } from "../../run-up/reading/run-up-reading";
import type { RunUpProfile } from "../../run-up/run-up-profile";
import type { SeenWay } from "../diagnose";
import type { DiagnosisContext, Observation } from "./observations";
import { limitToProbes, type ObserveLimits, observe } from "./observe";

/** True if the pilot reported no drop, a stop, or no check on a side where this interpretation shows a drop. */
const isDenied = ({ right, left }: RunUpReading, told: readonly Observation[]): boolean =>
  told.some(
    ({ feature, state, side }) =>
      (feature === "drop" || (feature === "turned" && state === "not sure")) &&
      (side === "right" ? right : left)?.seen,
  );

/**
 * Observations under each interpretation of a trace, with the pilot's answers. An answer about a side replaces what the trace
 * left open, and interpretations that contradict it are dropped; the first one always stays, since the questions were about it.
 * `profile` is the one used for reading (see `asTold`). Weights are unchanged. Pure.
 */
export function observeInterpretations(
  ways: readonly ReadWay[],
  profile: RunUpProfile,
  limits: ObserveLimits,
  context: DiagnosisContext,
  told: readonly Observation[] = [],
): SeenWay[] {
  const said = (side: string | undefined) =>
    told.some(({ feature, side: of }) => feature === "turned" && of === side);
  return ways
    .filter(({ reading }, i) => i === 0 || !isDenied(reading, told))
    .map(({ weight, reading }) => ({
      weight,
      observations: [
        ...observe(reading, profile, limits).filter(
          ({ feature, side }) => feature !== "shown" || !said(side),
        ),
        ...told,
      ],
      context: limitToProbes(context, reading),
    }));
}
