import { median } from "../trend/median";
import { slopeChange } from "../trend/slope-change";
import { type RobustLine, theilSen } from "../trend/theil-sen";
import { assertNotNegative, QuantityError } from "../units/convert";
import { formatNumber } from "../units/format";

/** One entry of an engine's oil log. */
export interface OilEntry {
  /** ISO 8601, UTC. */
  at: string;
  entry: "level" | "added";
  /** US quarts. */
  qt: number;
  /** Hour meter at the time; an addition without one belongs to the previous reading. */
  hours?: number;
  /** Engine of a twin. */
  engine?: string;
  heat?: "hot" | "cold";
  grade?: string;
}

/** Cumulative oil used at an hour meter reading, including additions. */
export interface OilUse {
  at: string;
  hours: number;
  levelQt: number;
  /** Since the first reading, US quarts. */
  usedQt: number;
  /** Added since the previous reading, US quarts. */
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
  /** Invalid entries: the hour meter went back. */
  faults: { at: string; reason: string }[];
  /** Over all readings; absent with too few. */
  overall?: OilRate;
  /** Since the latest change, else over the last readings. */
  recent?: OilRate;
  /** Time of the change, and the rate before. */
  change?: { at: string; hours: number; before: OilRate; z: number };
  /** Median time between readings, hours. */
  usualFlightH?: number;
  tooFew?: string;
}

/** Minimum readings for a trend (own limit: below it Sen's interval is wider than the slope). */
export const MIN_READINGS = 6;
/** Readings that count as recent if nothing has changed. */
const RECENT_READINGS = 12;
/** Readings searched for a change: an older change is no longer news, and a new one would be lost among thousands. */
const NEWS_READINGS = 41;
/** Significance of a reported change, in standard deviations: high, because every reading repeats the test at many places. */
const CHANGE_Z = 4;
/** Reading precision of a dipstick, US quarts, one standard deviation (common practice). */
export const DIPSTICK_SIGMA_QT = 0.15;
/** Minimum relative change: smaller ones are of no practical use (own limit). */
const CHANGE_PART = 0.25;

/**
 * Calculates an engine's oil consumption: readings and additions give a cumulative total over the hour meter, whose robust slope
 * is the rate. If the line bends clearly within the last readings, the rate has changed there, and "recent" starts at that point.
 * Valid range: entries of one engine in any order; levels and additions ≥ 0 (QuantityError otherwise). An entry whose meter went
 * back is left out and named. Source: Sen 1968, see there.
 */
export function oilTrend(entries: readonly OilEntry[]): OilTrend {
  const { use, faults } = oilUse(entries);
  if (use.length < MIN_READINGS)
    return {
      use,
      faults,
      tooFew: `${use.length === 0 ? "No oil reading" : use.length === 1 ? "One oil reading" : `${use.length} oil readings`} with hour meter. A trend needs ${MIN_READINGS}.`,
    };
  const flown = use.slice(1).map((u, i) => u.hours - (use[i] as OilUse).hours);
  const overall = rateOf(use);
  const result: OilTrend = { use, faults, overall, usualFlightH: median(flown) };
  const late = use.slice(-NEWS_READINGS);
  const found = slopeChange(
    late.map((u) => u.hours),
    late.map((u) => u.usedQt),
    MIN_READINGS,
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

/** Entries by time; usually they already are. */
function inTime(entries: readonly OilEntry[]): readonly OilEntry[] {
  const rising = entries.every((entry, i) => i === 0 || (entries[i - 1] as OilEntry).at <= entry.at);
  return rising ? entries : [...entries].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

/** Cumulative oil used, one point per reading. A second reading at the same hour (after an addition) replaces the first. */
function oilUse(entries: readonly OilEntry[]): Pick<OilTrend, "use" | "faults"> {
  const use: OilUse[] = [];
  const faults: OilTrend["faults"] = [];
  /** Added since the first reading, and since the last one. */
  let total = 0;
  let added = 0;
  const ordered = inTime(entries);
  for (const { entry, qt, hours, at } of ordered) {
    assertNotNegative(entry === "added" ? "An addition of oil" : "The oil level", qt);
    if (entry === "added") {
      // Oil added before the first reading is part of it.
      if (use.length > 0) total += qt;
      added += qt;
      continue;
    }
    if (hours === undefined) continue;
    const last = use.at(-1);
    if (last && hours < last.hours) {
      faults.push({
        at,
        reason: `The hour meter reads ${formatNumber(hours, 1)} h but read ${formatNumber(last.hours, 1)} h before. Check the readings.`,
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
  /** Flights of usual length that end above the minimum, from the present level. */
  flights: number;
  /** Interval: at least, at most; the latter absent if consumption may be zero. */
  atLeast: number;
  atMost?: number;
  hours: number;
}

/**
 * Number of flights until the level is below the minimum at the recent rate.
 * Valid range: level and minimum ≥ 0, flight > 0; throws QuantityError otherwise. Undefined without measurable consumption.
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
