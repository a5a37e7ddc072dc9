import { getTimes } from "suncalc";
import { assertFinite, QuantityError } from "../units/convert";
import type { NightBegins } from "./night-begins";

export interface SunTimes {
  /** Absent if the sun does not rise or set on that day. */
  sunrise?: string;
  sunset?: string;
  /** Civil twilight: the sun six degrees below the horizon. */
  dawn?: string;
  dusk?: string;
  always?: "day" | "night";
}

const DAY_MS = 86_400_000;
const MS_PER_DEGREE = DAY_MS / 360;

/** Mean solar noon of the local day on which this time falls: days count by the sun, not by the date in UTC. */
function solarNoon(at: string, lon: number): Date {
  const local = Date.parse(at) + lon * MS_PER_DEGREE;
  return new Date(Math.floor(local / DAY_MS) * DAY_MS + DAY_MS / 2 - lon * MS_PER_DEGREE);
}

/**
 * Sunrise, sunset and civil twilight of the local day on which this time falls, at this place. Valid range: latitude −90 to 90, longitude −180
 * to 180; throws QuantityError otherwise. Source: the library suncalc, checked in the tests against astronomy-engine.
 */
export function sunTimes(at: string, lat: number, lon: number): SunTimes {
  assertFinite("The latitude", lat);
  assertFinite("The longitude", lon);
  if (Math.abs(lat) > 90 || Math.abs(lon) > 180)
    throw new QuantityError("Latitude must be from −90 to 90 degrees, longitude from −180 to 180.");
  const times = getTimes(solarNoon(at, lon), lat, lon);
  const told = (name: "sunrise" | "sunset" | "dawn" | "dusk") => {
    const time = times[name];
    return time instanceof Date && !Number.isNaN(time.getTime()) ? { [name]: time.toISOString() } : {};
  };
  return {
    ...told("sunrise"),
    ...told("sunset"),
    ...told("dawn"),
    ...told("dusk"),
    ...(times.alwaysUp && { always: "day" as const }),
    ...(times.alwaysDown && { always: "night" as const }),
  };
}

const HALF_HOUR = 30 * 60_000;

/** Beginning and end of the day by the rule. Undefined if there is none. */
export function dayOf(sun: SunTimes, begins: NightBegins): { from: number; to: number } | undefined {
  const [from, to] = begins === "civil twilight" ? [sun.dawn, sun.dusk] : [sun.sunrise, sun.sunset];
  if (!from || !to) return undefined;
  const more = begins === "30 min after sunset" ? HALF_HOUR : 0;
  return { from: Date.parse(from) - more, to: Date.parse(to) + more };
}

/** Light conditions of a flight. */
export interface FlightLight {
  /** Part of it is at night, by the rule. */
  night: boolean;
  /** Minutes from landing to the end of the day, negative after it; absent if day or night do not end. */
  leftMin?: number;
  sun: SunTimes;
}

/** Determines whether a flight is at night. Valid range and errors: as `sunToday`; the end is not before the start. */
export function lightOf(
  { from, to }: { from: string; to: string },
  { lat, lon }: { lat: number; lon: number },
  begins: NightBegins,
): FlightLight {
  const sun = sunTimes(from, lat, lon);
  const day = dayOf(sun, begins);
  if (!day) return { night: sun.always !== "day", sun };
  return {
    night: Date.parse(from) < day.from || Date.parse(to) > day.to,
    leftMin: (day.to - Date.parse(to)) / 60_000,
    sun,
  };
}
