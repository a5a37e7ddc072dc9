import { median } from "../../trend/median";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import { restsAtBase } from "./reading-context";
import type { MagnetoReading, RunUpReading } from "./run-up-reading";

/**
 * A return to both can differ from base by fifteen rpm, and a tachometer has steps of ten: a smaller drop is not a side, rpm at
 * 1,800, unless EGT rose as with a single spark, °F. Without probes the limit is what a return may show. Common practice; the
 * figures are own estimates.
 */
export const HARDLY_RPM = 25;
const HARDLY_WITHOUT_PROBES_RPM = 16;
const ROSE_F = 18;

export function negligibleDrops(
  { drop, feel, seen, egtChange }: MagnetoReading,
  profile: RunUpProfile,
): boolean {
  const changes = Object.values(egtChange);
  const most = changes.length > 0 ? HARDLY_RPM : HARDLY_WITHOUT_PROBES_RPM;
  const rose = changes.length > 0 && median(changes) > ROSE_F;
  return seen && feel !== "quit" && !rose && Math.abs(drop) < most * rpmScale(profile);
}

/** Replaces these sides by "both"; adjacent steps on both are merged. */
export function asBoth(steps: readonly FoundStep[], sides: readonly MagnetoReading[]): FoundStep[] {
  const made: FoundStep[] = [];
  for (const step of steps) {
    const before = made.at(-1);
    const is = sides.some(({ from }) => from === step.at) ? { ...step, step: "both" as const } : step;
    if (is.step === "both" && before && restsAtBase(before))
      made[made.length - 1] = { ...before, until: is.until };
    else made.push(is);
  }
  return made;
}

/** Multiple of sigma at which a drop exceeds the scatter. */
const STANDS_OUT = 2;

/** Minimum steady time on both before it, seconds. */
const STOOD_S = 4;
/** Drops up to this are none, rpm at 1,800: the scatter of one second of trace (as in `tracedLimits`). */
const NO_DROP_RPM = 8;

/**
 * Marks each side of a prompted run-up as seen or not by its drop: the key may turn between two samples, and a return may be as
 * low as a small drop. A drop that is neither clear nor clearly absent is marked `hardly`.
 */
export const asDropped = ({ steps, tries }: RunUpReading, profile: RunUpProfile): FoundStep[] =>
  steps.map((step, i) => {
    const made = tries.find(({ from }) => from === step.at);
    if (!made || made.feel === "quit") return step;
    if (step.seen && !negligibleDrops(made, profile)) return step;
    if (step.seen && made.drop >= NO_DROP_RPM * rpmScale(profile)) return { ...step, hardly: true };
    if (step.seen) return { ...step, seen: false };
    // A throttle still settling before it would look like a drop.
    const stood = step.at - (steps[i - 1]?.at ?? step.at) >= STOOD_S;
    const plain = stood && made.drop > Math.max(HARDLY_RPM * rpmScale(profile), STANDS_OUT * made.dropSigma);
    return plain ? { ...step, seen: true } : step;
  });
