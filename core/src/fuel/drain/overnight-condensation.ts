import { vapourDensityGPerM3 } from "../../air/water-vapour";
import { assertFinite, assertNotNegative, QuantityError } from "../../units/convert";

/** What the aircraft stood through. */
export interface NightAir {
  /** The lowest temperature of the night, °C. */
  lowC: number;
  /** The dew point in the evening, °C. */
  dewPointC: number;
  /** How many such nights since the tank was drained last. */
  nights: number;
}

/**
 * The most water, in millilitres, that the air above the fuel can have let fall: all the vapour that was in the empty part of the tank, and
 * in the air that the cooling drew in after it, less what the cold air still holds. By day the tank is taken to breathe in air as damp as
 * before. An upper bound: real tanks breathe less, and part of it stays dissolved. More water than this did not come from the air.
 * Valid range: empty part ≥ 0 L, 0 to 60 nights, −60 to 50 °C; throws QuantityError otherwise.
 * Source: ideal gas at constant pressure: the vapour's share of the air is that of the dew point, so V · (ρ(dew point, low) − ρ(low, low)).
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
  // The vapour as dense as it would be at the low temperature if none of it had fallen out.
  const before = densityIfKept(dewPointC, lowC);
  return nights * (emptyL / 1000) * (before - vapourDensityGPerM3(lowC, lowC));
}

/** The density, in g/m³, of vapour with the pressure of this dew point, cooled to `celsius` at constant pressure without condensing. */
function densityIfKept(dewPointC: number, celsius: number): number {
  return (vapourDensityGPerM3(dewPointC, dewPointC) * (dewPointC + 273.15)) / (celsius + 273.15);
}

/** Drops of water in so many millilitres: twenty to the millilitre (common practice). */
export function dropsOfWater(ml: number): number {
  return Math.round(ml * 20);
}
