import type { Trace } from "../../trace/trace";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { emissionScore } from "./emission-score";
import { isSide, type LabelHypothesis, NEVER, PLATEAU_LABELS, type PlateauLabel } from "./plateau-label";
import { type Signature, signatureOf } from "./plateau-signature";
import type { Plateau } from "./plateaus";
import { howItFollows, howItGoesOn } from "./sequence-score";

/** Duration that suggests both sides in succession, seconds. Common practice: three to fifteen seconds per side. */
export const LONG_FOR_ONE_S = 12;

/** Sequences kept after each stretch. */
const KEPT = 48;

/** One sequence of labels with its score, a log likelihood. */
export interface LabelRow {
  labels: PlateauLabel[];
  score: number;
}

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
  let beam: LabelHypothesis[] = [{ score: 0, labels: [], done: new Set(), dropped: {} }];
  for (const plateau of plateaus) {
    const next: LabelHypothesis[] = [];
    const signatures = new Map<Plateau | undefined, Signature>();
    for (const hypothesis of beam) {
      let signature = signatures.get(hypothesis.base);
      if (!signature) {
        signature = signatureOf(trace, plateau, hypothesis.base, hypothesis.last);
        signatures.set(hypothesis.base, signature);
      }
      for (const label of PLATEAU_LABELS) {
        const fits = emissionScore(label, plateau, hypothesis, signature, profile);
        if (fits <= NEVER) continue;
        const score =
          hypothesis.score +
          fits +
          leans(label, plateau) +
          howItFollows(hypothesis, label, profile) +
          howItGoesOn(hypothesis, label, plateau, rpmScale(profile));
        next.push(continued(hypothesis, label, plateau, score));
      }
    }
    beam = next.sort((a, b) => b.score - a.score).slice(0, KEPT);
  }
  return beam.map(({ labels, score }) => ({ labels, score }));
}

/** The hypothesis with one more label. */
function continued(
  hypothesis: LabelHypothesis,
  label: PlateauLabel,
  plateau: Plateau,
  score: number,
): LabelHypothesis {
  const base = baseAfter(hypothesis, label, plateau);
  const long = hypothesis.long || (isSide(label) && plateau.to - plateau.onset >= LONG_FOR_ONE_S);
  return {
    score,
    labels: [...hypothesis.labels, label],
    last: plateau,
    dropped: isSide(label)
      ? { ...hypothesis.dropped, [label]: (hypothesis.base?.rpm ?? plateau.rpm) - plateau.rpm }
      : hypothesis.dropped,
    ...(long && { long: true as const }),
    done: hypothesis.done.has(label) ? hypothesis.done : new Set([...hypothesis.done, label]),
    ...(base && { base }),
  };
}

/** The base that following stretches are compared with: melted ice changes it, closing the throttle ends it. */
function baseAfter(
  { labels, base }: LabelHypothesis,
  label: PlateauLabel,
  plateau: Plateau,
): Plateau | undefined {
  if (label === "base" || (label === "power" && labels.at(-1) === "heat")) return plateau;
  return label === "idle" || label === "ground" ? undefined : base;
}
