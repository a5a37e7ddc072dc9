import { median } from "../trend/median";
import { slopeChange } from "../trend/slope-change";
import { type RobustLine, theilSen } from "../trend/theil-sen";
import { assertNotNegative, QuantityError } from "../units/convert";

/** One line of an engine's oil log. */
export interface OilEntry {
  /** ISO 8601, UTC. */
  at: string;
  entry: "level" | "added";
  /** US quarts. */
  qt: number;
  /** The hour meter then; an addition without one belongs to the reading before it. */
  hours?: number;
  /** Which engine of a twin. */
  engine?: string;
  heat?: "hot" | "cold";
  grade?: string;
}

/** Oil used up to an hour of the meter, additions counted in. */
export interface OilUse {
  at: string;
  hours: number;
  levelQt: number;
  /** Since the first reading, US quarts. */
  usedQt: number;
  /** What was put in after the reading before this one, US quarts. */
  addedQt: number;
}

/** Quarts per hour. */
export interface OilRate {
  perH: number;
  low: number;
  high: number;
  readings: number;
}

export interface OilTrend {
  use: OilUse[];
  /** Lines of the log that cannot be: the hour meter went back. */
  faults: { at: string; reason: string }[];
  /** Over all readings; absent where there are too few. */
  overall?: OilRate;
  /** Since it changed, else over the last readings. */
  recent?: OilRate;
  /** When it changed, and what it was before. */
  change?: { at: string; hours: number; before: OilRate; z: number };
  /** The usual flight between two readings, hours. */
  usualFlightH?: number;
  tooFew?: string;
}

/** Fewer readings than this, and nothing is said about a trend (our own bound: Sen's interval is wider than the slope below it). */
export const LEAST_READINGS = 6;
/** How many readings make "now", where nothing has changed. */
const RECENT_READINGS = 12;
/** A change is looked for among so many readings: an older one is no news, and a new one would drown among thousands. */
const NEWS_READINGS = 41;
/** A change so clear, in standard deviations, is told: every reading looks anew, at many places. */
const CHANGE_Z = 4;
/** A dipstick can be read to about this, US quarts, one standard deviation (common practice). */
export const DIPSTICK_SIGMA_QT = 0.15;
/** And by at least this part of what it was: less is of no use to anyone (our own bound). */
const CHANGE_PART = 0.25;

/**
 * How much oil one engine uses, from its log: readings and additions become a running total over the hour meter, whose robust slope is the
 * consumption. Where the line bends clearly among the last readings, it has changed: then, "recent" begins there.
 * Valid range: entries of one engine in any order; levels and additions ≥ 0 (QuantityError otherwise). A line whose meter went back is
 * left out and named. Source: Sen 1968, see there.
 */
export function oilTrend(entries: readonly OilEntry[]): OilTrend {
  const { use, faults } = oilUse(entries);
  if (use.length < LEAST_READINGS)
    return {
      use,
      faults,
      tooFew: `${use.length === 0 ? "No oil reading" : use.length === 1 ? "One oil reading" : `${use.length} oil readings`} with hour meter. A trend needs ${LEAST_READINGS}.`,
    };
  const flown = use.slice(1).map((u, i) => u.hours - (use[i] as OilUse).hours);
  const overall = rateOf(use);
  const result: OilTrend = { use, faults, overall, usualFlightH: median(flown) };
  const late = use.slice(-NEWS_READINGS);
  const found = slopeChange(
    late.map((u) => u.hours),
    late.map((u) => u.usedQt),
    LEAST_READINGS,
    DIPSTICK_SIGMA_QT,
  );
  const at = found && late[found.index];
  if (found && at && Math.abs(found.z) >= CHANGE_Z) {
    const [was, now] = [rateByLine(found.before), rateByLine(found.after)];
    if (Math.abs(now.perH - was.perH) > CHANGE_PART * Math.abs(was.perH))
      return { ...result, recent: now, change: { at: at.at, hours: at.hours, before: was, z: found.z } };
  }
  return { ...result, recent: use.length > RECENT_READINGS ? rateOf(use.slice(-RECENT_READINGS)) : overall };
}

/** The lines by their time; mostly they come like that. */
function inTime(entries: readonly OilEntry[]): readonly OilEntry[] {
  const rising = entries.every((entry, i) => i === 0 || (entries[i - 1] as OilEntry).at <= entry.at);
  return rising ? entries : [...entries].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

/** The running total of oil used, one point a reading. A second reading at the same hour (after an addition) takes the place of the first. */
function oilUse(entries: readonly OilEntry[]): Pick<OilTrend, "use" | "faults"> {
  const use: OilUse[] = [];
  const faults: OilTrend["faults"] = [];
  /** Put in since the first reading, and since the last one. */
  let total = 0;
  let added = 0;
  const ordered = inTime(entries);
  for (const { entry, qt, hours, at } of ordered) {
    assertNotNegative(entry === "added" ? "An addition of oil" : "The oil level", qt);
    if (entry === "added") {
      // What went in before the first reading is in that reading.
      if (use.length > 0) total += qt;
      added += qt;
      continue;
    }
    if (hours === undefined) continue;
    const last = use.at(-1);
    if (last && hours < last.hours) {
      faults.push({
        at,
        reason: `The hour meter reads ${hours} but read ${last.hours} before. Check the readings.`,
      });
      continue;
    }
    const usedQt = use.length === 0 ? 0 : (use[0] as OilUse).levelQt + total - qt;
    if (last && hours === last.hours)
      use[use.length - 1] =
        use.length === 1
          ? { at, hours, levelQt: qt, usedQt: 0, addedQt: last.addedQt + added }
          : { at, hours, levelQt: qt, usedQt, addedQt: last.addedQt + added };
    else use.push({ at, hours, levelQt: qt, usedQt, addedQt: added });
    if (use.length === 1) total = 0;
    added = 0;
  }
  return { use, faults };
}

function rateOf(use: readonly OilUse[]): OilRate {
  return rateByLine(
    theilSen(
      use.map((u) => u.hours),
      use.map((u) => u.usedQt),
    ),
  );
}

function rateByLine(line: RobustLine): OilRate {
  return { perH: line.slope, low: line.low, high: line.high, readings: line.points };
}

export interface OilForecast {
  /** Flights of the usual length that end above the minimum, from the level now. */
  flights: number;
  /** By the ends of the interval: at the least, at the most; the latter absent where it may use none at all. */
  atLeast: number;
  atMost?: number;
  hours: number;
}

/**
 * After how many flights the level is below the minimum, if it goes on as of late.
 * Valid range: level and minimum ≥ 0, flight > 0; throws QuantityError otherwise. Undefined where it uses nothing that can be measured.
 * @example forecastOil(7, 6, { perH: 0.25, … }, 1).flights // 4
 */
export function forecastOil(
  levelQt: number,
  minimumQt: number,
  rate: OilRate,
  usualFlightH: number,
): OilForecast | undefined {
  assertNotNegative("The oil level", levelQt);
  assertNotNegative("The minimum", minimumQt);
  if (!(usualFlightH > 0)) throw new QuantityError("The usual flight time must be more than zero.");
  if (!(rate.perH > 0)) return undefined;
  const room = Math.max(0, levelQt - minimumQt);
  const flights = (perH: number) => Math.floor(room / (perH * usualFlightH) + 1e-9);
  return {
    flights: flights(rate.perH),
    atLeast: flights(Math.max(rate.high, rate.perH)),
    ...(rate.low > 0 && { atMost: flights(rate.low) }),
    hours: room / rate.perH,
  };
}
