import { assertFinite, QuantityError } from "../units/convert";

const ZERO_K = 273.15;
const TRIPLE_POINT_C = 0.01;
/** Gas constant of water vapour, J/(kg·K): 8.31446 J/(mol·K) over 18.01527 g/mol. */
const R_VAPOUR = 461.52;

/**
 * Saturation vapour pressure in pascal, over water, or over ice below 0.01 °C.
 * Valid range: −100 to 100 °C; throws QuantityError outside.
 * Source: ASHRAE Handbook Fundamentals (2017), chapter 1, equations 5 and 6 (Hyland & Wexler), coefficients from memory, checked
 * against `psychrolib`.
 */
export function saturationPressurePa(celsius: number): number {
  assertFinite("The temperature", celsius);
  if (celsius < -100 || celsius > 100)
    throw new QuantityError(`${celsius} °C is outside −100 to 100 °C. Check the temperature.`);
  const t = celsius + ZERO_K;
  if (celsius <= TRIPLE_POINT_C)
    return Math.exp(
      -5.6745359e3 / t +
        6.3925247 -
        9.677843e-3 * t +
        6.2215701e-7 * t ** 2 +
        2.0747825e-9 * t ** 3 -
        9.484024e-13 * t ** 4 +
        4.1635019 * Math.log(t),
    );
  return Math.exp(
    -5.8002206e3 / t +
      1.3914993 -
      4.8640239e-2 * t +
      4.1764768e-5 * t ** 2 -
      1.4452093e-8 * t ** 3 +
      6.5459673 * Math.log(t),
  );
}

/**
 * Water vapour density in g/m³ at an air temperature and dew point.
 * Valid range: −100 to 100 °C, dew point not above the temperature; throws QuantityError otherwise. Source: ideal gas law.
 * @example vapourDensityGPerM3(20, 20) // 17.3, saturated
 */
export function vapourDensityGPerM3(celsius: number, dewPointC: number): number {
  if (dewPointC > celsius)
    throw new QuantityError(
      `The dew point (${dewPointC} °C) cannot be above the temperature (${celsius} °C). Check both.`,
    );
  return (saturationPressurePa(dewPointC) / (R_VAPOUR * (celsius + ZERO_K))) * 1000;
}
