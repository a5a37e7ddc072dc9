import { getTimes } from "suncalc";
import { assertFinite, QuantityError } from "../units/convert";
import type { NightBegins } from "./night-begins";

export interface SunToday {
  /** Absent where the sun does not rise or set on that day. */
  sunrise?: string;
  sunset?: string;
  /** Civil twilight: the sun six degrees below the horizon. */
  dawn?: string;
  dusk?: string;
  always?: "day" | "night";
}

/**
 * When the sun rises and sets, and when civil twilight begins and ends, on the day around this moment at this place. Valid range: latitude −90 to 90, longitude
 * −180 to 180; throws QuantityError otherwise. Source: the library suncalc, held in the tests against astronomy-engine.
 */
export function sunToday(at: string, lat: number, lon: number): SunToday {
  assertFinite("The latitude", lat);
  assertFinite("The longitude", lon);
  if (Math.abs(lat) > 90 || Math.abs(lon) > 180)
    throw new QuantityError("Latitude must be from −90 to 90 degrees, longitude from −180 to 180.");
  const times = getTimes(new Date(at), lat, lon);
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

/** The end of the day as the rule has it, and its beginning. Undefined where there is none. */
export function dayOf(sun: SunToday, begins: NightBegins): { from: number; to: number } | undefined {
  const [from, to] = begins === "civil twilight" ? [sun.dawn, sun.dusk] : [sun.sunrise, sun.sunset];
  if (!from || !to) return undefined;
  const more = begins === "30 min after sunset" ? HALF_HOUR : 0;
  return { from: Date.parse(from) - more, to: Date.parse(to) + more };
}

/** How a flight lies to the day. */
export interface FlightLight {
  /** Part of it is flown by night, by the rule. */
  night: boolean;
  /** Minutes from the landing to the end of the day, below zero after it; absent where day or night do not end. */
  leftMin?: number;
  sun: SunToday;
}

/**
 * Whether a flight from one moment to another is a night flight. Valid range and errors: as `sunToday`; it ends not before it begins.
 */
export function lightOf(
  { from, to }: { from: string; to: string },
  { lat, lon }: { lat: number; lon: number },
  begins: NightBegins,
): FlightLight {
  const sun = sunToday(from, lat, lon);
  const day = dayOf(sun, begins);
  if (!day) return { night: sun.always !== "day", sun };
  return {
    night: Date.parse(from) < day.from || Date.parse(to) > day.to,
    leftMin: (day.to - Date.parse(to)) / 60_000,
    sun,
  };
}
