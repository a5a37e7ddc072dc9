import { assertNotNegative, QuantityError } from "../../units/convert";
import { assertUncertain, type Uncertain, Z_95_ONE_SIDED } from "../../units/uncertain";

/** Everything that decides whether the fuel is enough, with how sure each is. */
export interface FuelPlan {
  /** Usable in all tanks, litres. */
  usable: Uncertain;
  /** Start, taxi and run-up, litres. */
  taxi: Uncertain;
  /** What the climb takes more than the same time in cruise, litres. */
  climb: Uncertain;
  /** Litres per hour at the chosen power. */
  burn: Uncertain;
  /** The planned flight, minutes. */
  flight: Uncertain;
  /** What must remain on landing, minutes at the planned burn; a rule, so without doubt. */
  reserveMin: number;
}

export interface Enough {
  /** Minutes until it is gone, from take-off. */
  enduranceMin: number;
  /** The same less the reserve: minutes from take-off by which to be on the ground. */
  legalMin: number;
  /** What remains beyond flight and reserve, litres; negative: missing. */
  marginL: Uncertain;
  marginMin: number;
  /** In nineteen cases of twenty the margin is better than this. */
  worstMarginL: number;
  worstMarginMin: number;
  /** The legal endurance in the worst reasonable case, minutes, ≥ 0. */
  worstLegalMin: number;
}

/**
 * Margin and endurance, by the best guess and in the worst reasonable case. The margin is usable − taxi − climb − burn · (flight + reserve);
 * its variance is exact for independent errors (that of a product is a²·σb² + b²·σa² + σa²·σb²), its distribution taken as normal.
 * Valid range: all amounts ≥ 0, burn > 0; throws QuantityError otherwise.
 * Source: variance of sums and products of independent quantities (Goodman, J. Amer. Stat. Assoc. 55, 1960, from memory).
 */
export function fuelMargin(plan: FuelPlan): Enough {
  assertPlan(plan);
  const { usable, taxi, climb, burn, flight, reserveMin } = plan;
  const perMin = burn.value / 60;
  const hours = (flight.value + reserveMin) / 60;
  const start = taxi.value + climb.value;
  const value = usable.value - start - burn.value * hours;
  const product = Math.hypot(
    hours * burn.sigma,
    (burn.value * flight.sigma) / 60,
    (burn.sigma * flight.sigma) / 60,
  );
  const sigma = Math.hypot(usable.sigma, taxi.sigma, climb.sigma, product);
  const worst = value - Z_95_ONE_SIDED * sigma;
  const enduranceMin = Math.max(0, usable.value - start) / perMin;
  // The time at which the worst case meets the reserve: its own margin is spent at that burn.
  const worstLegalMin = Math.max(0, flight.value + worst / perMin);
  return {
    enduranceMin,
    legalMin: Math.max(0, enduranceMin - reserveMin),
    marginL: { value, sigma },
    marginMin: value / perMin,
    worstMarginL: worst,
    worstMarginMin: worst / perMin,
    worstLegalMin: Math.min(worstLegalMin, Math.max(0, enduranceMin - reserveMin)),
  };
}

/**
 * Refuses a plan that cannot be: negative amounts, or an engine that burns nothing. Litres, minutes, litres an hour. Throws QuantityError with
 * what is wrong. Source: arithmetic.
 */
export function assertPlan({ usable, taxi, climb, burn, flight, reserveMin }: FuelPlan): void {
  for (const [what, part] of [
    ["The usable fuel", usable],
    ["The taxi fuel", taxi],
    ["The climb fuel", climb],
    ["The planned burn", burn],
    ["The planned flight", flight],
  ] as const) {
    assertUncertain(what, part);
    assertNotNegative(what, part.value);
  }
  assertNotNegative("The reserve", reserveMin);
  if (burn.value === 0) throw new QuantityError("The planned burn must be more than zero.");
}
