import { type Judgement, notAssessed, type Source } from "../judgement/judgement";
import { assertFinite, QuantityError } from "../units/convert";
import { formatQuantity } from "../units/format";

/** An electrical load on the battery. */
export interface ElectricalLoad {
  id: string;
  name: string;
  amps: number;
}

/** Battery capacity and starting demand of a type, by temperature; example values until the handbook's are entered. */
export interface ElectricalProfile {
  volts: number;
  /** Rated capacity at 25 °C. */
  batteryAh: number;
  loads: ElectricalLoad[];
  /** Usable share of the rated ampere-hours by temperature, from 0 to 1. */
  usable: { celsius: number; part: number }[];
  /** Ampere-hours needed for the start, including a second attempt, by temperature. */
  start: { celsius: number; ah: number }[];
  /** Longest intended battery time before the start, in minutes. */
  lapMin: number;
  source: Source;
}

/** A period with constant loads. */
export interface LoadSpan {
  seconds: number;
  amps: number;
}

export interface BatteryState {
  usedAh: number;
  amps: number;
  availableAh: number;
  needAh: number;
  /** Charge left above the starting demand. */
  marginAh: number;
  /** Minutes until only the starting demand is left at the present loads; absent with none on. */
  minutesLeft?: number;
}

/**
 * Ampere-hours drawn: the sum of amperes times hours. Valid range: seconds and amperes not negative; throws QuantityError
 * otherwise.
 * Source: definition of the ampere-hour.
 * @example usedAmpereHours([{ amps: 12, seconds: 300 }]) // 1
 */
export function usedAmpereHours(spans: readonly LoadSpan[]): number {
  return spans.reduce((sum, { seconds, amps }) => {
    assertFinite("Time", seconds);
    assertFinite("Amperes", amps);
    if (seconds < 0 || amps < 0) throw new QuantityError("Time and amperes cannot be negative.");
    return sum + (amps * seconds) / 3600;
  }, 0);
}

/**
 * Charge left for the start at this temperature, by linear interpolation in the profile's tables, constant beyond their ends.
 * Valid range: −60 to 60 °C; throws QuantityError outside, and for a profile without a table. Assumes a full battery at
 * switch-on: its actual state shows in the voltage before the start. Source: the type's profile.
 */
export function batteryState(
  profile: ElectricalProfile,
  spans: readonly LoadSpan[],
  ampsNow: number,
  celsius: number,
): BatteryState {
  assertFinite("Temperature", celsius);
  if (celsius < -60 || celsius > 60)
    throw new QuantityError(
      `${formatQuantity({ value: celsius, unit: "°C" })} is out of range. Check the temperature.`,
    );
  const usedAh = usedAmpereHours(spans);
  const availableAh =
    profile.batteryAh *
    between(
      profile.usable.map((p) => [p.celsius, p.part]),
      celsius,
    );
  const needAh = between(
    profile.start.map((p) => [p.celsius, p.ah]),
    celsius,
  );
  const marginAh = availableAh - usedAh - needAh;
  return {
    usedAh,
    amps: ampsNow,
    availableAh,
    needAh,
    marginAh,
    ...(ampsNow > 0 && { minutesLeft: Math.max(0, (marginAh / ampsNow) * 60) }),
  };
}

function between(table: readonly (readonly [number, number])[], at: number): number {
  const points = [...table].sort(([a], [b]) => a - b);
  const [first] = points;
  const last = points.at(-1);
  if (!first || !last)
    throw new QuantityError("The electrical profile has no values for different temperatures.");
  if (at <= first[0]) return first[1];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]] as [readonly [number, number], readonly [number, number]];
    if (at <= b[0]) return a[1] + ((b[1] - a[1]) * (at - a[0])) / (b[0] - a[0]);
  }
  return last[1];
}

/**
 * Judges battery use before the start: "ask" if less is left than the start needs at this temperature, "watch" if the battery was
 * on longer than intended. Not judged without a profile or a temperature. Amperes, seconds, °C. Valid range: amps and seconds not
 * negative, temperature from −60 to 60 °C; throws QuantityError otherwise. Source: the type's profile; beyond its temperatures
 * the nearest value is used.
 */
export function judgeBattery(
  profile: ElectricalProfile | undefined,
  spans: readonly LoadSpan[],
  celsius: number | undefined,
): Judgement {
  const id = "battery";
  const subject = "Battery for engine start";
  if (!profile) return notAssessed(id, subject, "No electrical profile on file for this aircraft.");
  if (celsius === undefined)
    return notAssessed(
      id,
      subject,
      "Outside air temperature missing. Enter it to check the battery for engine start.",
    );
  const { usedAh, availableAh, needAh, marginAh } = batteryState(profile, spans, 0, celsius);
  const minutes = spans.reduce((sum, { seconds }) => sum + seconds, 0) / 60;
  const at = formatQuantity({ value: celsius, unit: "°C" });
  const base = {
    id,
    subject,
    scope: "aircraft" as const,
    reading: { value: usedAh, unit: "Ah" as const },
    limit: `at least ${formatQuantity({ value: needAh, unit: "Ah" })} left at ${at}`,
    margin: { value: marginAh, unit: "Ah" as const },
    source: profile.source,
  };
  const used = `${formatQuantity({ value: usedAh, unit: "Ah" })} used in ${formatQuantity({ value: minutes, unit: "min" })} on battery`;
  if (marginAh < 0)
    return {
      ...base,
      grade: "ask",
      sentence: `${used}: ${formatQuantity({ value: availableAh - usedAh, unit: "Ah" })} left at ${at}, the start needs ${formatQuantity({ value: needAh, unit: "Ah" })}.`,
      action:
        "Charge the battery or use external power. Hand-swinging the propeller is for trained people only.",
      caution: "A weak battery gives no reserve if the alternator fails.",
    };
  if (minutes > profile.lapMin)
    return {
      ...base,
      grade: "watch",
      sentence: `${used}, longer than the ${formatQuantity({ value: profile.lapMin, unit: "min" })} planned.`,
    };
  return { ...base, grade: "within limits", sentence: `${used}; enough left for the start at ${at}.` };
}
