import { assertFinite, QuantityError } from "../units/convert";

/**
 * Density altitude, ft, of dry air at a pressure (hPa) and a temperature (°C). Valid range: 300 to 1,100 hPa, −60 to 60 °C; throws QuantityError otherwise.
 * Source: US National Weather Service formula, DA = 145442.16 · (1 − (17.326 · P / (459.67 + T))^0.235) ft, P in inHg, T in °F.
 */
export function densityAltitudeFt(pressureHpa: number, celsius: number): number {
  assertFinite("The pressure", pressureHpa);
  assertFinite("The temperature", celsius);
  if (pressureHpa < 300 || pressureHpa > 1100)
    throw new QuantityError("The pressure must be 300 to 1,100 hPa.");
  if (celsius < -60 || celsius > 60) throw new QuantityError("The temperature must be −60 to 60 °C.");
  const inHg = pressureHpa / 33.8639;
  const rankine = 459.67 + celsius * 1.8 + 32;
  return 145_442.16 * (1 - ((17.326 * inHg) / rankine) ** 0.235);
}

/**
 * Pressure, hPa, at an elevation (ft) from the altimeter setting (hPa). Valid range: 850 to 1,090 hPa, −1,500 to 20,000 ft; throws QuantityError
 * otherwise. Source: ICAO Doc 7488 (standard atmosphere), troposphere.
 */
export function stationPressureHpa(settingHpa: number, elevationFt: number): number {
  assertFinite("The altimeter setting", settingHpa);
  assertFinite("The elevation", elevationFt);
  if (settingHpa < 850 || settingHpa > 1090)
    throw new QuantityError("The altimeter setting must be 850 to 1,090 hPa.");
  if (elevationFt < -1500 || elevationFt > 20_000)
    throw new QuantityError("The elevation must be −1,500 to 20,000 ft.");
  return (settingHpa ** EXPONENT - fallTo(elevationFt)) ** (1 / EXPONENT);
}

/**
 * Altimeter setting, hPa, at which an altimeter shows `elevationFt` at this pressure (hPa): the inverse of `stationPressureHpa`.
 * Valid range: 300 to 1,100 hPa, −1,500 to 20,000 ft; throws QuantityError otherwise. Source: ICAO Doc 7488 (standard
 * atmosphere), troposphere.
 */
export function settingForHpa(pressureHpa: number, elevationFt: number): number {
  assertFinite("The pressure", pressureHpa);
  assertFinite("The elevation", elevationFt);
  if (pressureHpa < 300 || pressureHpa > 1100)
    throw new QuantityError("The pressure must be 300 to 1,100 hPa.");
  if (elevationFt < -1500 || elevationFt > 20_000)
    throw new QuantityError("The elevation must be −1,500 to 20,000 ft.");
  return (pressureHpa ** EXPONENT + fallTo(elevationFt)) ** (1 / EXPONENT);
}

const EXPONENT = 0.190263;
const SEA_LEVEL_HPA = 1013.25;
const LAPSE_K_PER_M = 0.0065;

function fallTo(elevationFt: number): number {
  return (SEA_LEVEL_HPA ** EXPONENT * LAPSE_K_PER_M * elevationFt * 0.3048) / 288.15;
}
