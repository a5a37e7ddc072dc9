import { QuantityError } from "../../units/convert";
import { assertUncertain, type Uncertain, Z_95_TWO_SIDED } from "../../units/uncertain";

/** Sources for the content of a tank. */
export const FUEL_SOURCES = ["dip", "mark", "sight", "gauge", "log"] as const;
export type FuelSourceKind = (typeof FUEL_SOURCES)[number];

export interface FuelSource {
  kind: FuelSourceKind;
  litres: Uncertain;
}

export interface FuelEstimate {
  /** Best estimate, litres. If the sources disagree and none can be excluded, the lowest. */
  litres: Uncertain;
  /** 95 % interval, litres. */
  lowL: number;
  highL: number;
  agree: boolean;
  /** The source the others contradict; absent if they agree or the odd one cannot be identified. */
  odd?: FuelSourceKind;
  used: FuelSourceKind[];
  /** Deviation of each source from the others, in standard deviations of that difference; absent with one source. */
  residuals: Partial<Record<FuelSourceKind, number>>;
}

/** Deviation that counts as disagreement: once in eighty times by chance (two-sided normal). */
export const DISAGREE_AT = 2.5;

/**
 * Combines several sources by inverse-variance weighting; each is tested against the weighted mean of the others. If excluding
 * exactly one resolves a disagreement, that one is odd; otherwise the lowest is used, because overestimating fuel kills.
 * Valid range: at least one source, each uncertainty > 0; throws QuantityError otherwise.
 * Source: inverse-variance weighting and normalised residuals (common practice of metrology; JCGM 100:2008).
 */
export function estimateFuel(sources: readonly FuelSource[]): FuelEstimate {
  const [only] = sources;
  if (!only) throw new QuantityError("No fuel quantity entered.");
  for (const { kind, litres } of sources) {
    assertUncertain(`The ${kind} reading`, litres);
    if (litres.sigma === 0) throw new QuantityError(`The ${kind} reading needs an uncertainty above zero.`);
  }
  const residuals = residualsOf(sources);
  const worst = Math.max(0, ...Object.values(residuals).map(Math.abs));
  if (worst <= DISAGREE_AT) return estimate(sources, true, residuals);
  if (sources.length > 2) {
    const reconciling = sources.filter((one) => {
      const rest = sources.filter((other) => other !== one);
      return Object.values(residualsOf(rest)).every((r) => Math.abs(r) <= DISAGREE_AT);
    });
    const [odd] = reconciling;
    if (odd && reconciling.length === 1)
      return {
        ...estimate(
          sources.filter((w) => w !== odd),
          false,
          residuals,
        ),
        odd: odd.kind,
      };
  }
  const lowest = sources.reduce((low, w) => (w.litres.value < low.litres.value ? w : low), only);
  const highest = sources.reduce((high, w) => (w.litres.value > high.litres.value ? w : high), only);
  const alone = estimate([lowest], false, residuals);
  return { ...alone, highL: highest.litres.value + Z_95_TWO_SIDED * highest.litres.sigma };
}

/**
 * Inverse-variance weighted mean: weights 1/σ², error 1/√Σ(1/σ²). Any one unit. Valid range: at least one, each sigma above zero.
 * Source: JCGM 100:2008 (from memory).
 */
export function weightedMean(parts: readonly Uncertain[]): Uncertain {
  const weights = parts.map(({ sigma }) => 1 / sigma ** 2);
  const sum = weights.reduce((a, b) => a + b, 0);
  return {
    value: parts.reduce((total, { value }, i) => total + value * (weights[i] ?? 0), 0) / sum,
    sigma: 1 / Math.sqrt(sum),
  };
}

function residualsOf(sources: readonly FuelSource[]): FuelEstimate["residuals"] {
  if (sources.length < 2) return {};
  return Object.fromEntries(
    sources.map((one) => {
      const rest = weightedMean(sources.filter((other) => other !== one).map((w) => w.litres));
      return [one.kind, (one.litres.value - rest.value) / Math.hypot(one.litres.sigma, rest.sigma)];
    }),
  );
}

function estimate(
  used: readonly FuelSource[],
  agree: boolean,
  residuals: FuelEstimate["residuals"],
): FuelEstimate {
  const litres = weightedMean(used.map((w) => w.litres));
  return {
    litres,
    lowL: Math.max(0, litres.value - Z_95_TWO_SIDED * litres.sigma),
    highL: litres.value + Z_95_TWO_SIDED * litres.sigma,
    agree,
    used: used.map((w) => w.kind),
    residuals,
  };
}
