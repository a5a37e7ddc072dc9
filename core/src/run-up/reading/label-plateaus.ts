import { cylindersOf, firstAt, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { valuesBetween } from "./level-change";
import type { Plateau } from "./plateaus";

/** State of the engine during a steady stretch. */
export type PlateauLabel =
  | "stopped"
  | "idle"
  | "ground"
  | "base"
  | "first"
  | "second"
  | "heat"
  | "propeller"
  | "power"
  | "other";

const LABELS: readonly PlateauLabel[] = [
  "stopped",
  "idle",
  "ground",
  "base",
  "first",
  "second",
  "heat",
  "propeller",
  "power",
  "other",
];

interface Hypothesis {
  score: number;
  labels: PlateauLabel[];
  base?: Plateau;
  /** Previous stretch, of any label. */
  last?: Plateau;
  done: ReadonlySet<PlateauLabel>;
  /** Last drop of each side, rpm. */
  dropped: { first?: number; second?: number };
  /** A side held so long that it may have been both in direct succession. */
  long?: true;
}

const isSide = (label: PlateauLabel): boolean => label === "first" || label === "second";

/** Duration that suggests both sides in succession, seconds. Common practice: three to fifteen seconds per side. */
export const LONG_FOR_ONE_S = 12;

const NEVER = -1000;
const KEPT = 48;

/**
 * Labels each stretch of steady rpm: base, either magneto, heat and so on. A run-up has a usual order, and each step a signature:
 * on one magneto EGT rises on all cylinders (or falls far on one), with heat it falls, a propeller pulled back raises manifold
 * pressure. The most likely sequence is searched by order and signature together, so that repeats, other orders and omitted steps
 * are found too. The magnetos look alike: their identity follows from the order. Source: effects on rpm, EGT and manifold
 * pressure are textbook; weights are our own. Complexity: O(plateaus × beam).
 */
export function labelPlateaus(
  trace: Trace,
  plateaus: readonly Plateau[],
  profile: RunUpProfile,
  leans: (label: PlateauLabel, plateau: Plateau) => number = () => 0,
): LabelRow[] {
  let beam: Hypothesis[] = [{ score: 0, labels: [], done: new Set(), dropped: {} }];
  for (const plateau of plateaus) {
    const next: Hypothesis[] = [];
    const signatures = new Map<Plateau | undefined, Signature>();
    for (const hypothesis of beam) {
      let signature = signatures.get(hypothesis.base);
      if (!signature) {
        signature = signatureOf(trace, plateau, hypothesis.base, hypothesis.last);
        signatures.set(hypothesis.base, signature);
      }
      for (const label of LABELS) {
        const fits = emissionScore(label, plateau, hypothesis, signature, profile);
        if (fits <= NEVER) continue;
        const score =
          hypothesis.score +
          fits +
          leans(label, plateau) +
          howItFollows(hypothesis, label, profile) +
          howItGoesOn(hypothesis, label, plateau, rpmScale(profile));
        // Melted ice changes the base.
        const base =
          label === "base" || (label === "power" && hypothesis.labels.at(-1) === "heat")
            ? plateau
            : label === "idle" || label === "ground"
              ? undefined
              : hypothesis.base;
        next.push({
          score,
          labels: [...hypothesis.labels, label],
          last: plateau,
          dropped:
            label === "first" || label === "second"
              ? { ...hypothesis.dropped, [label]: (hypothesis.base?.rpm ?? plateau.rpm) - plateau.rpm }
              : hypothesis.dropped,
          ...((hypothesis.long || (isSide(label) && plateau.to - plateau.onset >= LONG_FOR_ONE_S)) && {
            long: true as const,
          }),
          done: hypothesis.done.has(label) ? hypothesis.done : new Set([...hypothesis.done, label]),
          ...(base && { base }),
        });
      }
    }
    beam = next.sort((a, b) => b.score - a.score).slice(0, KEPT);
  }
  return beam.map(({ labels, score }) => ({ labels, score }));
}

/** One sequence of labels with its score, a log likelihood. */
export interface LabelRow {
  labels: PlateauLabel[];
  score: number;
}

interface Signature {
  /** Change of EGT since the base, median of the cylinders, °F. */
  egt?: number;
  /** Largest fall of one cylinder relative to the others, °F, negative. */
  fall?: number;
  map?: number;
  /** Change of EGT since the previous stretch, median of the cylinders, °F. */
  since?: number;
}

function signatureOf(
  trace: Trace,
  plateau: Plateau,
  base: Plateau | undefined,
  last: Plateau | undefined,
): Signature {
  if (!base) return {};
  const changes: number[] = [];
  const sinceLast: number[] = [];
  const of = (values: Float64Array | undefined) => {
    if (!values) return Number.NaN;
    return (
      meanOf(trace, values, plateau.to - 1.2, plateau.to) -
      meanOf(trace, values, Math.max(base.from, base.to - 2), base.to)
    );
  };
  for (const i of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${i}`] as Float64Array;
    // A noisy probe says nothing about its cylinder.
    if (jumpiness(valuesBetween(trace, values, base.from, base.to).y) > 20) continue;
    const change = of(values);
    // An expected change is no sign of getting hotter, nor its absence of getting cooler.
    if (!Number.isNaN(change))
      changes.push(change > 0 ? Math.max(0, change - stillToCome(trace, values, base)) : change);
    const since = last
      ? meanOf(trace, values, plateau.to - 1.2, plateau.to) - meanOf(trace, values, last.to - 1.2, last.to)
      : Number.NaN;
    if (!Number.isNaN(since)) sinceLast.push(since);
  }
  const map = of(trace.channels.map);
  const egt = changes.length > 0 ? median(changes) : undefined;
  return {
    ...(egt !== undefined && { egt, fall: Math.min(...changes) - egt }),
    ...(!Number.isNaN(map) && { map }),
    ...(sinceLast.length > 0 && { since: median(sinceLast) }),
  };
}

/** Time for a slow probe to settle, seconds. Source: probes of two to five seconds (common practice). */
const PROBE_S = 4;
/** After this long at base EGT is fully settled, seconds. */
const WARM_S = 15;

/**
 * Remaining rise of a probe at the end of the base, °F: shortly after reaching run-up power, a further rise is no sign of a new
 * step.
 */
function stillToCome(trace: Trace, values: Float64Array, { onset, to }: Plateau): number {
  if (to - onset > WARM_S) return 0;
  const rise = meanOf(trace, values, to - 1.6, to) - meanOf(trace, values, to - 3.6, to - 2);
  return Number.isNaN(rise) ? 0 : Math.max(0, rise / 2) * PROBE_S;
}

/**
 * Deviation of values from the line between their neighbours, upper quartile: large for a noisy probe, even on one sample in
 * four; small for one that rises or falls. In the values' unit; 0 for fewer than three values.
 */
export function jumpiness(values: readonly number[]): number {
  const jumps: number[] = [];
  for (let i = 2; i < values.length; i++)
    jumps.push(Math.abs((values[i - 1] as number) - ((values[i] as number) + (values[i - 2] as number)) / 2));
  return jumps.length > 0
    ? (jumps.sort((a, b) => a - b)[Math.floor(0.75 * (jumps.length - 1))] as number)
    : 0;
}

/** Upper quartile of that deviation for plain noise, in standard deviations: 1.15 times the root of 1.5. */
export const JUMPS = 1.41;

/** Mean of a channel between two times, inclusive; NaN without values. */
export function meanOf({ t }: Trace, values: Float64Array, from: number, to: number): number {
  let sum = 0;
  let count = 0;
  for (let i = firstAt(t, from); i < t.length && (t[i] as number) <= to; i++) {
    const value = values[i] as number;
    if (Number.isNaN(value)) continue;
    sum += value;
    count++;
  }
  return count > 0 ? sum / count : Number.NaN;
}

const onOne = ({ labels }: Hypothesis): boolean => labels.at(-1) === "first" || labels.at(-1) === "second";

/**
 * Times after a side at which EGT is still unchanged, and has fully recovered with slow probes, seconds. Source: probes of two to
 * five seconds (common practice).
 */
const HOT_S = 3;
const COOLED_S = 9;

/**
 * Maximum time an engine turns without ignition before a pilot switches back, seconds (own estimate; common practice: back to
 * both at once).
 */
const MAX_DEAD_S = 8;

/** Recovery of EGT from the previous side, 0 to 1: until it is complete, a falling EGT is no sign of a new step. */
function hasCooled({ labels, last }: Hypothesis): number {
  const before = labels.at(-2);
  if (!last || before === undefined || !isSide(before)) return 1;
  return Math.min(1, Math.max(0, (last.to - last.onset - HOT_S) / (COOLED_S - HOT_S)));
}

/** Score of a label for the stretch; 0 is a good fit. Weights are our own, checked against simulated and generated traces. */
function emissionScore(
  label: PlateauLabel,
  { rpm, onset, from, to }: Plateau,
  hypothesis: Hypothesis,
  { egt, fall = 0, map, since }: Signature,
  profile: RunUpProfile,
): number {
  const { base } = hypothesis;
  const aim = profile.rpm;
  const scale = rpmScale(profile);
  const idleTop = (profile.idle.max ?? 0.42 * aim) + 70 * scale;
  const drop = base ? base.rpm - rpm : 0;
  const cooled = hasCooled(hypothesis);
  switch (label) {
    case "stopped":
      return rpm < 0.08 * aim ? 0 : NEVER;
    case "idle":
      // Slightly above the idle range, taxi rpm is more likely than a high idle.
      return rpm >= 0.08 * aim && rpm <= idleTop ? (rpm > idleTop - 55 * scale ? -1.2 : 0) : NEVER;
    case "ground":
      if (rpm <= idleTop - 60 * scale || rpm >= 0.9 * aim) return NEVER;
      // Bursts of power while taxiing can reach nearly run-up rpm.
      return -Math.max(0, rpm / aim - 0.78) / 0.05;
    case "base": {
      // A short pause while opening the throttle is not a base.
      const brief = to - from < 1.5 ? -2 : 0;
      const { last } = hypothesis;
      const rested = last !== undefined && last === base && last.to - last.from < 1.5;
      if (!base || rested)
        return Math.abs(rpm - aim) > 0.2 * aim ? NEVER : brief - ((rpm - aim) / (0.07 * aim)) ** 2;
      const off = Math.abs(drop) / scale;
      // After a side EGT falls, even with slow probes.
      const back = onOne(hypothesis) && since !== undefined ? (since < -9 ? 1.5 : since > -2 ? -2.5 : 0) : 0;
      // Cooler than just before on both, with rpm no lower: heat melting ice.
      const warm =
        hypothesis.labels.at(-1) === "base" && profile.heat !== "none" && (since ?? 0) < -12
          ? -3 * cooled
          : 0;
      return back + warm + (off <= 7 ? 1 : -(((off - 7) / 9) ** 1.15));
    }
    case "first":
    case "second": {
      // It quits on one side: that magneto is dead.
      if (base && rpm < 0.08 * aim)
        return hypothesis.done.has("first") && hypothesis.done.has("second") ? -4 : -0.5;
      if (!base || drop < 6 * scale || drop > 0.45 * aim) return NEVER;
      // Nobody stays on a dead side: a longer cool stretch is the throttle.
      const dead = fall < -110 && to - onset < MAX_DEAD_S ? 4 : 0;
      // Below the usual range the signature must support it. A repeated side drops as before, which identifies it.
      const was = hypothesis.dropped[label];
      const unlike =
        was === undefined || hypothesis.labels.at(-1) === label
          ? 0
          : -Math.min(1.8, Math.max(0, (Math.abs(drop - was) / scale - 15) / 10));
      // One magneto costs at most a fifth of rpm: a much lower level without a cut is not a side.
      if (dead === 0 && drop > 0.3 * aim) return NEVER;
      const deep = dead === 0 && drop > 0.22 * aim ? -5 : 0;
      const small = drop < 14 * scale ? -2.5 : drop < 24 * scale ? -1 : 0;
      // Directly from the other side EGT stays; from both it rises.
      const turned =
        since === undefined || dead > 0
          ? 0
          : onOne(hypothesis)
            ? since < -12
              ? -2.5
              : 0
            : hypothesis.labels.at(-1) === "base" && since < 3
              ? -2.5 * cooled
              : 0;
      const long = to - from > 45 ? -2 : to - onset < 1.3 && dead === 0 ? -2 : 0;
      const hotter = egt === undefined ? 0 : egt > 12 ? 3 : egt > 4 ? 0 : -4 * cooled;
      return dead + deep + small + long + turned + unlike + (dead > 0 ? Math.max(0, hotter) : hotter);
    }
    case "heat": {
      if (!base || profile.heat === "none" || drop > 0.22 * aim || drop < -0.14 * aim) return NEVER;
      // Melting ice raises rpm back to base while heat is still on.
      const melts =
        hypothesis.labels.at(-1) === "heat" &&
        rpm > (hypothesis.last?.rpm ?? rpm) + 15 * scale &&
        (since === undefined ? drop > 0 : since < 8);
      const melted = melts || (hypothesis.labels.at(-1) === "base" && (since ?? 0) < -12 && cooled > 0.5);
      if (Math.abs(drop) < 6 * scale && !melted) return -3;
      // After heat is off EGT rises again, even with slow probes.
      if (hypothesis.labels.at(-1) === "heat" && (since ?? 0) > 10) return -5;
      // Compared with just before: an earlier base may still have been hot from a side.
      const colder = hypothesis.labels.at(-1) === "base" ? since : egt;
      const cooler =
        colder === undefined || egt === undefined
          ? -0.1
          : colder < -6
            ? hypothesis.labels.at(-1) === "propeller"
              ? 0
              : 3 * cooled
            : (egt > 14 && drop > 0) || ((since ?? 0) > 14 && drop < 0)
              ? -5
              : 0;
      // Much lower rpm with higher manifold pressure is a propeller, not heat.
      const cycled = profile.propeller === "constant speed" && drop > 0.12 * aim;
      const loaded = cycled && map !== undefined && map > 1 ? -5 : 0;
      // Heat costs at most a tenth of rpm.
      const deep = Math.max(0, (drop / aim - 0.085) / 0.02);
      return cooler - deep + loaded + (drop < 0 && !melts ? -1.5 : 0) + (fall < -110 ? -5 : 0);
    }
    case "propeller": {
      if (!base || profile.propeller !== "constant speed" || drop < 0.05 * aim || drop > 0.5 * aim)
        return NEVER;
      return (
        (map === undefined ? 0 : map > 0.7 ? 3 : -2) +
        (egt !== undefined && (egt > 30 || egt < -25) ? -3 : 0) +
        (fall < -110 ? -4 : 0)
      );
    }
    case "power":
      // After heat: melted ice leaves rpm about fifty above base. A throttle overshoot is corrected within seconds; a longer
      // small rise is a changed base.
      if (rpm <= (base?.rpm ?? aim) * 1.018) return NEVER;
      return (
        (rpm > (base?.rpm ?? aim) * 1.045 ? -1 : -1.4) -
        (hypothesis.labels.at(-1) !== "heat" && rpm < (base?.rpm ?? aim) * 1.07 && to - from > 4.5 ? 2 : 0)
      );
    case "other":
      return -7;
  }
}

/**
 * Score of continuing under the same label. One side has one level: a second level is the other side, or both. A rise with heat
 * on is melting ice.
 */
function howItGoesOn(
  { labels, last }: Hypothesis,
  label: PlateauLabel,
  { rpm, sigma }: Plateau,
  scale: number,
): number {
  if (!last || labels.at(-1) !== label) return 0;
  const apart = Math.abs(rpm - last.rpm) / scale;
  // The level of a misfiring side is less certain.
  const unsure = 4 + (0.5 * Math.max(last.sigma, sigma)) / scale;
  if (label === "first" || label === "second") return -Math.min(6, Math.max(0, (apart - unsure) / 2.5));
  // With heat off it is higher too.
  if (label === "heat") return rpm > last.rpm ? -0.5 : -Math.min(3, Math.max(0, (apart - 12) / 10));
  return 0;
}

/** Score of a label after the previous ones; 0 for the usual order. */
function howItFollows(
  { labels, done, long }: Hypothesis,
  label: PlateauLabel,
  profile: RunUpProfile,
): number {
  const last = labels.at(-1);
  if (last === label) return label === "first" || label === "second" ? -0.6 : -0.2;
  const onOne = last === "first" || last === "second";
  switch (label) {
    case "first":
    case "second": {
      const other = label === "first" ? "second" : "first";
      const lastSide = labels.findLast((before) => before === "first" || before === "second");
      // Repeats are usually done for both sides in turn.
      const again =
        done.has(label) && done.has(other)
          ? (lastSide === label ? -0.9 : -0.4) - (profile.heat === "none" || done.has("heat") ? 0 : 0.6)
          : 0;
      const turn =
        label === "first"
          ? done.has("first") && !done.has("second")
            ? -3.4
            : 0
          : done.has("first")
            ? 0
            : -2.6;
      const straight = last === other ? -0.9 : last === "base" ? 0 : -3;
      const late = done.has("heat") ? -0.8 : 0;
      return turn + again + straight + late;
    }
    case "heat":
      return (
        (last === "base" ? 0 : -3) +
        (done.has("second") ? 0 : done.has("first") ? -2 : -1) +
        (done.has("heat") ? -0.5 : 0)
      );
    case "propeller":
      return (last === "base" ? 0 : -2.5) + (profile.propeller === "fixed" ? -9 : 0);
    case "base":
      return last === undefined ? -0.5 : last === "power" ? -0.5 : 0;
    case "idle":
    case "ground":
      return onOne ? -2 : last === "heat" ? -1 : 0;
    case "stopped":
      // Nobody shuts down from run-up rpm: an engine that stops there quit on one side.
      return onOne
        ? long && !(done.has("first") && done.has("second"))
          ? -1.5
          : 0
        : last !== "base"
          ? -1
          : done.has("first") && (done.has("second") || long)
            ? -0.5
            : -2;
    case "power":
      return last === "heat" ? -0.3 : -0.5;
    case "other":
      return 0;
  }
}
