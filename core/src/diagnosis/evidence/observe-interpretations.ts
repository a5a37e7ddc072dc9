import type { ReadWay } from "../../run-up/reading/read-run-up";
import type { RunUpReading } from "../../run-up/reading/run-up-reading";
import type { RunUpProfile } from "../../run-up/run-up-profile";
import type { SeenWay } from "../diagnose";
import type { DiagnosisContext, Observation } from "./observations";
import { limitToProbes, type ObserveLimits, observe } from "./observe";

/** Whether the pilot said of a side that nothing dropped on it, that it stopped or that it was not tried, and this way to read the trace has it drop. */
const isDenied = ({ right, left }: RunUpReading, told: readonly Observation[]): boolean =>
  told.some(
    ({ feature, state, side }) =>
      (feature === "drop" || (feature === "turned" && state === "not sure")) &&
      (side === "right" ? right : left)?.seen,
  );

/**
 * What was seen in each way to read a trace, with what the pilot answered. What was said of a side takes the place of what the trace left open, and a way that
 * has dropped what by the pilot's word did not is none any more; the first way stays whatever is said, since it is what the questions were asked about.
 * `profile` is the one the ways were read with (see `asTold`). Weights stay as they are: parts of their sum. Pure.
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
