import { cylindersOf, firstAt, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { pieceOf } from "./level-change";
import type { Plateau } from "./plateaus";

/** What the engine was doing while the rpm stood. */
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
  done: ReadonlySet<PlateauLabel>;
}

const NEVER = -1000;
const KEPT = 48;

/**
 * Names each stretch of steady rpm: which of them is the run-up base, which one magneto, which the other, which the heat. A run-up has a usual
 * order, and each step its own signature: on one magneto the exhaust gets hotter on all cylinders (or much colder on one), with heat it gets
 * cooler, a propeller taken back raises the manifold pressure. The likeliest row of names is searched, order and signature together, so that
 * repeats, another order and a step left out are found too. The two magnetos look alike: which is which follows from the order alone. Source:
 * what each step does to rpm, exhaust and manifold pressure is textbook; weights are our own. Complexity: O(plateaus × beam).
 */
export function labelPlateaus(
  trace: Trace,
  plateaus: readonly Plateau[],
  profile: RunUpProfile,
): PlateauLabel[] {
  let beam: Hypothesis[] = [{ score: 0, labels: [], done: new Set() }];
  for (const plateau of plateaus) {
    const next: Hypothesis[] = [];
    const signatures = new Map<Plateau | undefined, Signature>();
    for (const hypothesis of beam) {
      let signature = signatures.get(hypothesis.base);
      if (!signature) {
        signature = signatureOf(trace, plateau, hypothesis.base);
        signatures.set(hypothesis.base, signature);
      }
      for (const label of LABELS) {
        const fits = howItFits(label, plateau, hypothesis, signature, profile);
        if (fits <= NEVER) continue;
        const score = hypothesis.score + fits + howItFollows(hypothesis, label, profile);
        const base =
          label === "base" ? plateau : label === "idle" || label === "ground" ? undefined : hypothesis.base;
        next.push({
          score,
          labels: [...hypothesis.labels, label],
          done: hypothesis.done.has(label) ? hypothesis.done : new Set([...hypothesis.done, label]),
          ...(base && { base }),
        });
      }
    }
    beam = next.sort((a, b) => b.score - a.score).slice(0, KEPT);
  }
  return beam[0]?.labels ?? plateaus.map(() => "other");
}

interface Signature {
  /** Change of the exhaust since the base, median of the cylinders, °F. */
  egt?: number;
  /** The cylinder that fell most against the others, °F, negative. */
  fall?: number;
  map?: number;
}

function signatureOf(trace: Trace, plateau: Plateau, base: Plateau | undefined): Signature {
  if (!base) return {};
  const changes: number[] = [];
  const of = (values: Float64Array | undefined) => {
    if (!values) return Number.NaN;
    return (
      meanOf(trace, values, plateau.to - 1.2, plateau.to) -
      meanOf(trace, values, Math.max(base.from, base.to - 2), base.to)
    );
  };
  for (const i of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${i}`] as Float64Array;
    // A probe that jumps about says nothing of its cylinder.
    if (jumpiness(pieceOf(trace, values, base.from, base.to).y) > 20) continue;
    const change = of(values);
    if (!Number.isNaN(change)) changes.push(change);
  }
  const map = of(trace.channels.map);
  const egt = changes.length > 0 ? median(changes) : undefined;
  return {
    ...(egt !== undefined && { egt, fall: Math.min(...changes) - egt }),
    ...(!Number.isNaN(map) && { map }),
  };
}

/** How far a row jumps from one value to the next, median: a probe that reads wildly. In the row's own unit; 0 for fewer than two values. */
export function jumpiness(values: readonly number[]): number {
  const jumps: number[] = [];
  for (let i = 1; i < values.length; i++)
    jumps.push(Math.abs((values[i] as number) - (values[i - 1] as number)));
  return jumps.length > 0 ? median(jumps) : 0;
}

/** The mean of a channel between two times, both included; not a number where there is no value. */
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

/** How well the stretch looks like this name; 0 is well. The weights are our own, chosen by reason and held against simulated and made-up traces. */
function howItFits(
  label: PlateauLabel,
  { rpm, from, to }: Plateau,
  hypothesis: Hypothesis,
  { egt, fall = 0, map }: Signature,
  profile: RunUpProfile,
): number {
  const { base } = hypothesis;
  const aim = profile.rpm;
  const scale = rpmScale(profile);
  const idleTop = (profile.idle.max ?? 0.42 * aim) + 70 * scale;
  const drop = base ? base.rpm - rpm : 0;
  switch (label) {
    case "stopped":
      return rpm < 0.08 * aim ? 0 : NEVER;
    case "idle":
      return rpm >= 0.08 * aim && rpm <= idleTop ? 0 : NEVER;
    case "ground":
      return rpm > idleTop - 60 * scale && rpm < 0.78 * aim ? (rpm <= idleTop ? -1 : 0) : NEVER;
    case "base": {
      if (!base) return Math.abs(rpm - aim) > 0.2 * aim ? NEVER : -(((rpm - aim) / (0.07 * aim)) ** 2);
      const off = Math.abs(drop) / scale;
      return off <= 7 ? 1 : -(((off - 7) / 9) ** 1.15);
    }
    case "first":
    case "second": {
      // It stops on one: that magneto is dead.
      if (base && rpm < 0.08 * aim)
        return hypothesis.done.has("first") && hypothesis.done.has("second") ? -4 : -0.5;
      if (!base || drop < 6 * scale || drop > 0.45 * aim) return NEVER;
      const dead = fall < -110 ? 4 : 0;
      // Below the usual range the signature has to speak for it.
      const small = drop < 14 * scale ? -1 : 0;
      const long = to - from > 45 ? -2 : 0;
      const hotter = egt === undefined ? 0 : egt > 12 ? 3 : egt > 4 ? 0 : -4;
      return dead + small + long + (dead > 0 ? Math.max(0, hotter) : hotter);
    }
    case "heat": {
      if (!base || profile.heat === "none" || drop > 0.22 * aim || drop < -0.14 * aim) return NEVER;
      if (Math.abs(drop) < 6 * scale) return -3;
      const cooler = egt === undefined ? -0.1 : egt < -6 ? 3 : egt > 14 && drop > 0 ? -5 : 0;
      // Much slower with more manifold pressure is a propeller that loads the engine, not warm air.
      const cycled = profile.propeller === "constant speed" && drop > 0.12 * aim;
      const loaded = cycled && map !== undefined && map > 1 ? -5 : 0;
      return cooler + loaded + (drop < 0 ? -1.5 : 0) + (fall < -110 ? -5 : 0);
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
      // Behind the heat: ice that is gone leaves it half a hundred above the base.
      return rpm > (base?.rpm ?? aim) * 1.045 ? -1 : rpm > (base?.rpm ?? aim) * 1.018 ? -1.4 : NEVER;
    case "other":
      return -7;
  }
}

/** How well it follows what was before; 0 is the usual order. */
function howItFollows({ labels, done }: Hypothesis, label: PlateauLabel, profile: RunUpProfile): number {
  const last = labels.at(-1);
  if (last === label) return label === "first" || label === "second" ? -0.6 : -0.2;
  const onOne = last === "first" || last === "second";
  switch (label) {
    case "first":
    case "second": {
      const other = label === "first" ? "second" : "first";
      const lastSide = labels.findLast((before) => before === "first" || before === "second");
      // Done again, they are mostly done again in turn.
      const again =
        done.has(label) && done.has(other)
          ? (lastSide === label ? -1.2 : -0.4) - (profile.heat === "none" || done.has("heat") ? 0 : 0.6)
          : 0;
      const turn =
        label === "first"
          ? done.has("first") && !done.has("second")
            ? -2.2
            : 0
          : done.has("first")
            ? 0
            : -2.6;
      const straight = last === other ? -2.5 : last === "base" ? 0 : -3;
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
      // Nobody shuts down from the run-up rpm: what stops there, stops on one.
      return onOne ? 0 : last !== "base" ? -1 : done.has("first") && done.has("second") ? -0.5 : -2;
    case "power":
      return last === "heat" ? -0.8 : -0.5;
    case "other":
      return 0;
  }
}
