import { vapourDensityGPerM3 } from "../../air/water-vapour";
import { assertFinite, assertNotNegative, QuantityError } from "../../units/convert";

/** Overnight conditions. */
export interface NightAir {
  /** Lowest temperature of the night, °C. */
  lowC: number;
  /** Evening dew point, °C. */
  dewPointC: number;
  /** Number of such nights since the tank was last drained. */
  nights: number;
}

/**
 * Upper bound, in millilitres, of the water that could condense from the air above the fuel: all vapour in the empty part of the
 * tank and in the air drawn in while cooling, less what the cold air still holds. Each day the tank is assumed to refill with air
 * of the same dew point. Real tanks breathe less, and some water stays dissolved. More water than this is not condensation.
 * Valid range: empty part ≥ 0 L, 0 to 60 nights, −60 to 50 °C; throws QuantityError otherwise.
 * Source: ideal gas at constant pressure; the vapour fraction is that of the dew point, so V · (ρ(dew point, low) − ρ(low, low)).
 */
export function overnightCondensationMl(emptyL: number, { lowC, dewPointC, nights }: NightAir): number {
  assertNotNegative("The empty part of the tank", emptyL);
  for (const [what, celsius] of [
    ["The night's lowest temperature", lowC],
    ["The dew point", dewPointC],
  ] as const) {
    assertFinite(what, celsius);
    if (celsius < -60 || celsius > 50)
      throw new QuantityError(`${what} (${celsius} °C) must be from −60 to 50 °C.`);
  }
  if (!Number.isInteger(nights) || nights < 0 || nights > 60)
    throw new QuantityError("Enter 0 to 60 nights.");
  if (dewPointC <= lowC) return 0;
  // Vapour density at the low temperature if nothing had condensed.
  const before = vapourDensityAtConstantPressure(dewPointC, lowC);
  return nights * (emptyL / 1000) * (before - vapourDensityGPerM3(lowC, lowC));
}

/** Density, in g/m³, of vapour with the pressure of this dew point, cooled to `celsius` at constant pressure without condensing. */
function vapourDensityAtConstantPressure(dewPointC: number, celsius: number): number {
  return (vapourDensityGPerM3(dewPointC, dewPointC) * (dewPointC + 273.15)) / (celsius + 273.15);
}

/** Number of water drops: twenty per millilitre (common practice). */
export function dropsOfWater(ml: number): number {
  return Math.round(ml * 20);
}
