import type { Judgement } from "../judgement/judgement";
import { formatNumber, formatQuantity } from "../units/format";
import { DIPSTICK_SIGMA_QT, forecastOil, type OilForecast, type OilTrend } from "./oil-consumption";

const perHour = (qt: number) => `${formatNumber(qt, 2)} qt/h`;

/** Consumption since the last reading, if enough time has passed. */
export interface SinceLastReading {
  usedQt: number;
  hours: number;
}

/** Deviation from the expected level, in standard deviations, that is not a reading error. */
const SUDDEN_AT = 2.5;

/**
 * Judges oil consumption from the log: its rate, whether it has changed (over the last flights, or suddenly since the last
 * reading), and the number of flights to the minimum. An increase is reported even at a good level. Undefined with too few
 * readings: see `trend.tooFew`. Valid range and errors: those of `forecastOil`.
 */
export function judgeOilUse(
  trend: Pick<OilTrend, "recent" | "change" | "usualFlightH">,
  levelQt: number,
  minimumQt: number | undefined,
  since?: SinceLastReading,
): Judgement | undefined {
  const base = { id: "oil.use", subject: "Oil consumption", scope: "aircraft" as const };
  const { recent, change, usualFlightH } = trend;
  if (!recent || !usualFlightH) return undefined;
  const forecast =
    minimumQt === undefined ? undefined : forecastOil(levelQt, minimumQt, recent, usualFlightH);
  const ahead = forecast ? forecastText(forecast, usualFlightH) : "";
  const uses = `${perHour(recent.perH)} recently (${formatNumber(Math.max(0, recent.low), 2)} to ${formatNumber(recent.high, 2)})`;
  const action =
    "Look for the cause and tell the mechanic: a change in oil consumption matters even at a normal level.";
  if (since && since.hours > 0) {
    const expected = Math.max(0, recent.perH) * since.hours;
    const sigma = Math.hypot(DIPSTICK_SIGMA_QT * Math.SQRT2, ((recent.high - recent.low) / 4) * since.hours);
    if (since.usedQt - expected > SUDDEN_AT * sigma)
      return {
        ...base,
        grade: "ask",
        sentence:
          `${formatNumber(since.usedQt, 1)} qt used in ${formatNumber(since.hours, 1)} h since the last reading; ${formatNumber(expected, 1)} qt expected. ${ahead}`.trim(),
        action: `Wipe the dipstick and read again. If confirmed, ${action.charAt(0).toLowerCase()}${action.slice(1)}`,
      };
  }
  if (change && recent.perH > change.before.perH)
    return {
      ...base,
      grade: "watch",
      sentence:
        `${uses}, up from ${perHour(change.before.perH)} since ${change.at.slice(0, 10)}. ${ahead}`.trim(),
      action,
    };
  const low = forecast?.flights === 0;
  return {
    ...base,
    grade: low ? "note" : "within limits",
    sentence: `${uses}. ${ahead}`.trim(),
    ...(low && { action: "Consider adding oil now: a full container may fit before this flight." }),
  };
}

/** "Above the minimum for about 4 more flights of 1 h 05 min (3 to 6)." Flights as whole numbers, hours above zero. */
export function forecastText({ flights, atLeast, atMost }: OilForecast, usualFlightH: number): string {
  const usual = formatQuantity({ value: usualFlightH * 60, unit: "min" });
  if (flights === 0) return `Will fall below the minimum on the next usual flight (${usual}).`;
  const range = atMost !== undefined && atMost !== atLeast ? ` (${atLeast} to ${atMost})` : "";
  return `Above the minimum for about ${flights} more ${flights === 1 ? "flight" : "flights"} of ${usual}${range}.`;
}

/**
 * Compares a twin's engines: "ask" if one uses at least half as much again as the other, and a tenth of a quart per hour more.
 * Quarts per hour. Undefined without both trends. Source: these thresholds and disjoint intervals are common practice.
 */
export function compareOilUse(
  left: Pick<OilTrend, "recent">,
  right: Pick<OilTrend, "recent">,
): Judgement | undefined {
  const [a, b] = [left.recent, right.recent];
  if (!a || !b) return undefined;
  const [more, less, side] = a.perH > b.perH ? [a, b, "left"] : [b, a, "right"];
  const apart =
    more.perH > 1.5 * Math.max(0, less.perH) && more.perH - less.perH > 0.1 && more.low > less.high;
  return {
    id: "oil.sides",
    subject: "Oil consumption, both engines",
    scope: "aircraft",
    grade: apart ? "watch" : "within limits",
    sentence: `Left ${perHour(a.perH)}, right ${perHour(b.perH)}${apart ? `: the ${side} engine uses more` : ": about the same"}.`,
    ...(apart && {
      action:
        "Same hours, same pilots: the difference is in the engine. Look for the cause and tell the mechanic.",
    }),
  };
}
