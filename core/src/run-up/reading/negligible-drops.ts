import { median } from "../../trend/median";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import { restsAtBase } from "./reading-context";
import type { MagnetoReading, RunUpReading } from "./run-up-reading";

/**
 * A return to both stands up to fifteen rpm beside the base, and a tachometer has steps of ten: nearer to it is no side, rpm at 1,800, unless its exhaust rose
 * as on one that burns on one spark, °F. Without probes what a return may be by itself. Common practice; the figures are own estimates.
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

/** The steps with these sides taken for both; steps on both behind each other are one. */
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

/** By so many times its sigma a drop stands out of the scatter. */
const STANDS_OUT = 2;

/** What has stood for so long on both had come to rest, seconds. */
const STOOD_S = 4;
/** Up to here nothing dropped, rpm at 1,800: the scatter of a second of trace (as in `tracedLimits`). */
const NO_DROP_RPM = 8;

/**
 * The steps of a run-up that was called, with each side seen or not by what it dropped: a hand may turn the key between two lines, and a return may lie as low as a small drop. What is neither plainly a
 * drop nor plainly none is hardly one.
 */
export const asDropped = ({ steps, tries }: RunUpReading, profile: RunUpProfile): FoundStep[] =>
  steps.map((step, i) => {
    const made = tries.find(({ from }) => from === step.at);
    if (!made || made.feel === "quit") return step;
    if (step.seen && !negligibleDrops(made, profile)) return step;
    if (step.seen && made.drop >= NO_DROP_RPM * rpmScale(profile)) return { ...step, hardly: true };
    if (step.seen) return { ...step, seen: false };
    // A throttle that had hardly come to rest before it would look like a drop.
    const stood = step.at - (steps[i - 1]?.at ?? step.at) >= STOOD_S;
    const plain = stood && made.drop > Math.max(HARDLY_RPM * rpmScale(profile), STANDS_OUT * made.dropSigma);
    return plain ? { ...step, seen: true } : step;
  });
