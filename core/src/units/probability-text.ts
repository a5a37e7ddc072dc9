import { assertFinite, QuantityError } from "./convert";
import { formatNumber } from "./format";

/**
 * Words for probabilities on the IPCC's scale of calibrated language (guidance note on the treatment of uncertainties, 2010; from
 * memory): over 99 % virtually certain, over 90 very likely, over 66 likely, 33 to 66 about as likely as not, under 33 unlikely,
 * under 10 very unlikely. "Virtually certain" is left out: a trace never justifies it.
 */
const WORDS: readonly (readonly [over: number, words: string])[] = [
  [0.9, "very likely"],
  [0.66, "likely"],
  [0.33, "about as likely as not"],
  [0.1, "unlikely"],
  [0, "very unlikely"],
];

/** Fractions, simplest first. */
const PARTS: readonly (readonly [of: number, all: number])[] = [
  [1, 2],
  [1, 3],
  [2, 3],
  ...Array.from({ length: 9 }, (_, i) => [i + 1, 10] as const),
  [1, 20],
  [19, 20],
  [1, 100],
  [99, 100],
];

function assertProbability(chance: number): void {
  assertFinite("chance", chance);
  if (chance < 0 || chance > 1) throw new QuantityError(`A chance lies from 0 to 1, not ${chance}.`);
}

/** Word for a probability from 0 to 1. Throws QuantityError outside. */
export function probabilityWord(chance: number): string {
  assertProbability(chance);
  return WORDS.find(([over]) => chance > over)?.[1] ?? "very unlikely";
}

/**
 * Probability from 0 to 1 as a frequency: "2 of 3", the nearest simple fraction; people judge frequencies better than percentages
 * (Gigerenzer and Hoffrage, 1995). Throws as `chanceWord`.
 */
export function probabilityCases(chance: number): string {
  assertProbability(chance);
  // On a tie the simpler one.
  const [of, all] = PARTS.reduce((best, one) =>
    Math.abs(one[0] / one[1] - chance) < Math.abs(best[0] / best[1] - chance) - 1e-9 ? one : best,
  );
  return `${of} of ${all}`;
}

/** Probability from 0 to 1 as a frequency with percentage: "7 of 10 (71 %)". Throws as `chanceWord`. */
export function probabilityNumber(chance: number): string {
  const percent = chance > 0.99 ? "over 99" : chance < 0.01 ? "under 1" : formatNumber(chance * 100);
  return `${probabilityCases(chance)} (${percent} %)`;
}

/** Word, frequency and percentage: "likely, 7 of 10 (71 %)". Throws as `chanceWord`. */
export const probabilityText = (chance: number): string =>
  `${probabilityWord(chance)}, ${probabilityNumber(chance)}`;
