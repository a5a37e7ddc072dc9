import type { DiagnosisContext } from "./evidence/observations";
import { UNKNOWN_FAULT } from "./fault-library";
import { type Hypothesis, hypotheses } from "./hypotheses";

/** Most that is claimed while more would rest on the assumed rates; shown as "likely". */
export const MOST_BY_RATES = 0.899;
/** Above that a claim needs as much from the evidence alone: then library and evidence differ by six points at most. */
const CARRIED = 0.94;

export interface Certainty {
  ranked: Hypothesis[];
  /** The first explanation would be above nine in ten only because faults are assumed to be rare. */
  restsOnRates: boolean;
}

/**
 * Limits what is claimed of the likeliest explanation to what the evidence carries. The library's rates are estimates, so the same
 * observations are also weighed with every fault as frequent as a healthy engine. If both put the likeliest explanation above
 * 94 %, their mean is stated, at most three points from either. Otherwise just below nine in ten is stated, and the others share
 * the rest in proportion. At or below nine in ten nothing changes, and the order of faults never does.
 * `calibrated` and `weighed` are the same explanations after and before calibration, each summing to one; so does the result.
 * Source: robust Bayesian analysis with a class of priors, Berger (Statistical Decision Theory, 1985), from memory; the two
 * figures are own choices.
 */
export function limitCertainty(
  calibrated: readonly Hypothesis[],
  weighed: readonly Hypothesis[],
  context: DiagnosisContext,
): Certainty {
  const stated = byFault(calibrated);
  const [top, most] = [...stated].reduce((a, b) => (b[1] > a[1] ? b : a), ["", 0] as [string, number]);
  if (most <= MOST_BY_RATES) return { ranked: [...calibrated], restsOnRates: false };
  const alone = byFault(withEqualRates(weighed, context)).get(top) ?? 0;
  const carried = alone >= CARRIED || alone >= most;
  const claim = carried ? (most + alone) / 2 : MOST_BY_RATES;
  const rest = 1 - most;
  const ranked = calibrated.map((one) => ({
    ...one,
    probability:
      nameOf(one) === top
        ? (one.probability * claim) / most
        : rest > 0
          ? (one.probability * (1 - claim)) / rest
          : (1 - claim) / Math.max(1, calibrated.length - 1),
  }));
  return { ranked, restsOnRates: !carried };
}

/** The same explanations with every fault as frequent as a healthy engine; one that is not on file keeps its rate. */
function withEqualRates(weighed: readonly Hypothesis[], context: DiagnosisContext): Hypothesis[] {
  const rates = byFault(hypotheses(context));
  const healthy = rates.get(nameOf({})) ?? 1;
  const made = weighed.map((one) => ({
    ...one,
    probability:
      one.fault === UNKNOWN_FAULT
        ? one.probability
        : (one.probability * healthy) / Math.max(rates.get(nameOf(one)) ?? healthy, Number.MIN_VALUE),
  }));
  const all = made.reduce((sum, { probability }) => sum + probability, 0);
  return made.map((one) => ({ ...one, probability: one.probability / all }));
}

const nameOf = ({ fault }: Pick<Hypothesis, "fault">): string => fault?.id ?? "none";

function byFault(ranked: readonly Hypothesis[]): Map<string, number> {
  const sums = new Map<string, number>();
  for (const one of ranked) sums.set(nameOf(one), (sums.get(nameOf(one)) ?? 0) + one.probability);
  return sums;
}
