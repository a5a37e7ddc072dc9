import { hypothesisName, stateChances } from "./diagnose";
import { type DiagnosisContext, FEATURES, type Feature, type Observation } from "./evidence/observations";
import { UNKNOWN_FAULT } from "./fault-library";
import { type Hypothesis, hypotheses } from "./hypotheses";
import { TESTS } from "./next-test";

/** A fault that a trace could not have shown, and what would show it. */
export interface HiddenFault {
  fault: string;
  name: string;
  /** The test that would show it best; absent if none in the cockpit does. */
  show?: string;
}

/** Overlap of a faulty and a healthy trace from which one cannot be told from the other: an own choice. */
const HIDDEN_FROM = 0.6;
/** A test that leaves less of this overlap shows the fault. */
const SHOWS_BELOW = 0.8;

/** Features that answer a remedy, or a question to the pilot: they say nothing of an engine in which nothing was found. */
const NO_TESTS: ReadonlySet<Feature> = new Set([
  "shown",
  "turned",
  "cleared",
  "leaned",
  "again",
  "reset",
  "cycled",
  "morePower",
]);

/** How a feature that the trace lacks is made to show. */
const HOW: Partial<Record<Feature, string>> = {
  drop: "Check both magnetos, five seconds on each side.",
  feel: "Feel how smoothly it runs on each side, and note it.",
  exhaust: "Check both magnetos with all exhaust temperatures recorded.",
  heat: "Carburettor heat on for ten seconds, then off, at run-up rpm.",
  propeller: "Cycle the propeller once, slowly.",
  idle: "Throttle to idle for half a minute after the run-up.",
  idleExhaust: "Throttle to idle for half a minute after the run-up, with all exhaust temperatures recorded.",
  volts: "Read the voltage at run-up rpm.",
  ammeter: "Read the ammeter at run-up rpm.",
  suction: "Read the suction at run-up rpm.",
  oilPressure: "Read the oil pressure at run-up rpm.",
};

/** Overlap of two distributions of a feature's states, 0 to 1. Source: Bhattacharyya, Bull. Calcutta Math. Soc. 35 (1943). */
function overlap(
  feature: Feature,
  side: "right" | "left" | undefined,
  faulty: Hypothesis,
  context: DiagnosisContext,
): number {
  const healthy = stateChances(feature, side, { probability: 1 }, context);
  const ill = stateChances(feature, side, faulty, context);
  return FEATURES[feature].reduce((sum, _, i) => sum + Math.sqrt((healthy[i] ?? 0) * (ill[i] ?? 0)), 0);
}

/**
 * Faults that these observations could not have told from a healthy engine, whatever they were: the overlap of both, over the
 * features that were observed, is at least 0.6. Each has the test that would show it best. Valid range: any observations; without
 * any, every fault is hidden. Complexity: O(faults · features · states).
 * Source: the fault library's own estimates; overlap after Bhattacharyya.
 */
export function hiddenFaults(
  observations: readonly Observation[],
  context: DiagnosisContext,
  words?: { right: string; left: string },
): HiddenFault[] {
  const seen = new Map(observations.map((one) => [`${one.feature} ${one.side ?? ""}`, one]));
  const found = new Map<string, HiddenFault>();
  for (const hypothesis of hypotheses(context)) {
    const { fault, cylinder, side } = hypothesis;
    // One location stands for all: the right side and the first cylinder.
    if (!fault || fault === UNKNOWN_FAULT || found.has(fault.id)) continue;
    if ((cylinder ?? 1) > 1 || side === "left") continue;
    const left = [...seen.values()].reduce(
      (product, one) => product * overlap(one.feature, one.side, hypothesis, context),
      1,
    );
    if (left < HIDDEN_FROM) continue;
    const show = bestTest(hypothesis, seen, context);
    found.set(fault.id, {
      fault: fault.id,
      name: hypothesisName({ fault, probability: 0 }, words).replace(/\s+/g, " ").trim(),
      ...(show && { show }),
    });
  }
  return [...found.values()];
}

/** Words for the unobserved feature in which the fault differs most from a healthy engine. */
function bestTest(
  hypothesis: Hypothesis,
  seen: ReadonlyMap<string, Observation>,
  context: DiagnosisContext,
): string | undefined {
  const features = (Object.keys(FEATURES) as Feature[]).filter((feature) => !NO_TESTS.has(feature));
  let best: { words: string; left: number } | undefined;
  for (const feature of features) {
    const test = TESTS.find((one) => one.feature === feature);
    const words = HOW[feature] ?? (test && (!test.only || test.only(context)) ? test.how : undefined);
    if (!words || [...seen.keys()].some((key) => key.startsWith(`${feature} `))) continue;
    const left = Math.min(
      ...(["right", "left", undefined] as const).map((side) => overlap(feature, side, hypothesis, context)),
    );
    if (left < SHOWS_BELOW && left < (best?.left ?? 1)) best = { words, left };
  }
  return best?.words;
}
