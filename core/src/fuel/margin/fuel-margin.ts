import { assertNotNegative, QuantityError } from "../../units/convert";
import { assertUncertain, type Uncertain, Z_95_ONE_SIDED } from "../../units/uncertain";

/** Inputs of the fuel margin, with uncertainties. */
export interface FuelPlan {
  /** Usable in all tanks, litres. */
  usable: Uncertain;
  /** Start, taxi and run-up, litres. */
  taxi: Uncertain;
  /** Extra fuel for the climb, compared with the same time in cruise, litres. */
  climb: Uncertain;
  /** Litres per hour at the chosen power setting. */
  burn: Uncertain;
  /** Planned flight time, minutes. */
  flight: Uncertain;
  /** Minutes at the planned consumption that must remain on landing; a rule, so without uncertainty. */
  reserveMin: number;
}

export interface Enough {
  /** Minutes from take-off until the fuel is used up. */
  enduranceMin: number;
  /** Endurance less the reserve: minutes from take-off to land by. */
  legalMin: number;
  /** Fuel beyond flight and reserve, litres; negative if missing. */
  marginL: Uncertain;
  marginMin: number;
  /** 5th percentile of the margin. */
  worstMarginL: number;
  worstMarginMin: number;
  /** Endurance less reserve in the worst reasonable case, minutes, ≥ 0. */
  worstLegalMin: number;
}

/**
 * Margin and endurance, by the best estimate and in the worst reasonable case. The margin is usable − taxi − climb − burn ·
 * (flight + reserve); its variance is exact for independent errors (that of a product is a²·σb² + b²·σa² + σa²·σb²), its
 * distribution taken as normal.
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
  // Time at which the worst case reaches the reserve.
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
 * Rejects an impossible plan: negative amounts, or no consumption. Litres, minutes, litres per hour. Throws QuantityError with
 * the reason. Source: arithmetic.
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
