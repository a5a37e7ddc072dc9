import { saturationPressurePa } from "../air/water-vapour";
import { stationPressureHpa } from "../run-up/density-altitude";
import { assertFinite, QuantityError } from "../units/convert";

const SEA_LEVEL_HPA = 1013.25;
const EXPONENT = 0.190263;
const FT_PER_KELVIN = 288.15 / (0.0065 * 0.3048);

/**
 * Pressure altitude, ft, for a pressure (hPa) in the standard atmosphere. Valid range: 300 to 1,100 hPa; throws QuantityError
 * otherwise.
 * Source: ICAO Doc 7488, troposphere. @example pressureAltitudeFt(1013.25) // 0
 */
export function pressureAltitudeFt(pressureHpa: number): number {
  assertFinite("The pressure", pressureHpa);
  if (pressureHpa < 300 || pressureHpa > 1100)
    throw new QuantityError("The pressure must be 300 to 1,100 hPa.");
  return FT_PER_KELVIN * (1 - (pressureHpa / SEA_LEVEL_HPA) ** EXPONENT);
}

/**
 * Density altitude, ft, for pressure (hPa), temperature and dew point (°C): moist air is lighter. Without a dew point dry air is
 * assumed.
 * Valid range: 300 to 1,100 hPa, −60 to 60 °C, dew point not above the temperature; throws QuantityError otherwise.
 * Source: US National Weather Service, DA = 145442.16 · (1 − (17.326 · P / (459.67 + Tv))^0.235) ft, P in inHg, Tv the virtual
 * temperature in °F (from memory).
 */
export function moistDensityAltitudeFt(pressureHpa: number, celsius: number, dewPointC?: number): number {
  assertFinite("The temperature", celsius);
  if (celsius < -60 || celsius > 60) throw new QuantityError("The temperature must be −60 to 60 °C.");
  if (dewPointC !== undefined && dewPointC > celsius)
    throw new QuantityError("The dew point cannot be above the temperature. Check both.");
  if (pressureHpa < 300 || pressureHpa > 1100)
    throw new QuantityError("The pressure must be 300 to 1,100 hPa.");
  const vapourHpa = dewPointC === undefined ? 0 : saturationPressurePa(dewPointC) / 100;
  const virtualK = (celsius + 273.15) / (1 - 0.378 * (vapourHpa / pressureHpa));
  const inHg = pressureHpa / 33.8639;
  return 145_442.16 * (1 - ((17.326 * inHg) / (virtualK * 1.8)) ** 0.235);
}

/** Relative humidity, 0 to 1. Valid range: as `saturationPressurePa`. Source: ASHRAE Handbook, chapter 1. */
export function relativeHumidity(celsius: number, dewPointC: number): number {
  return Math.min(1, saturationPressurePa(dewPointC) / saturationPressurePa(celsius));
}

/**
 * Cumulus cloud base, ft above the field, from temperature and dew point. Valid range: any. Source: about 400 ft per degree of
 * spread, common practice.
 */
export function cloudBaseFt(celsius: number, dewPointC: number): number {
  return Math.max(0, (celsius - dewPointC) * 400);
}

/** Air at a field today, from altimeter setting and temperature. */
export interface FieldAir {
  pressureHpa: number;
  pressureAltitudeFt: number;
  densityAltitudeFt: number;
}

/**
 * Air at a field: altimeter setting hPa, elevation ft, temperature and dew point °C. Valid range and errors: as the functions it
 * calls.
 */
export function fieldAir(
  settingHpa: number,
  elevationFt: number,
  celsius: number,
  dewPointC?: number,
): FieldAir {
  const pressureHpa = stationPressureHpa(settingHpa, elevationFt);
  return {
    pressureHpa,
    pressureAltitudeFt: pressureAltitudeFt(pressureHpa),
    densityAltitudeFt: moistDensityAltitudeFt(pressureHpa, celsius, dewPointC),
  };
}

/** Risk of carburettor icing, worst last. */
export const ICING_RISKS = ["unlikely", "light", "at low power", "in cruise", "at any power"] as const;
export type IcingRisk = (typeof ICING_RISKS)[number];

/**
 * Risk of carburettor icing by temperature and humidity bands, read from the charts to about two degrees and a tenth. Valid
 * range: dew point not above the temperature, else QuantityError. Source: the charts of FAA SAIB CE-09-35 and the UK CAA Safety
 * Sense Leaflet on piston-engine icing, from memory.
 */
export function carburettorIcing(celsius: number, dewPointC: number): IcingRisk {
  if (dewPointC > celsius)
    throw new QuantityError("The dew point cannot be above the temperature. Check both.");
  const humid = relativeHumidity(celsius, dewPointC);
  const within = (low: number, high: number, least: number) =>
    celsius >= low && celsius <= high && humid >= least;
  if (within(-2, 15, 0.8)) return "at any power";
  if (within(-8, 21, 0.6) || within(15, 26, 0.8)) return "in cruise";
  if (within(-10, 32, 0.5)) return "at low power";
  return within(-15, 38, 0.3) ? "light" : "unlikely";
}

export const ICING_WORDS: Record<IcingRisk, string> = {
  unlikely: "Carburettor icing is unlikely.",
  light: "Light carburettor icing possible.",
  "at low power": "Serious carburettor icing possible at low power: apply heat before closing the throttle.",
  "in cruise": "Carburettor icing possible in cruise, serious at low power: apply heat early.",
  "at any power":
    "Serious carburettor icing possible at any power: check for ice in the run-up and before take-off.",
};
