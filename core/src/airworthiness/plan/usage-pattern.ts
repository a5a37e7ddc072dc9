import { seededRandom } from "../../units/seeded-random";
import { addDays, dayNumber, isLocalDate, type LocalDate } from "../calendar/local-date";

/** Usage of one meter on one day. */
export interface DayUse {
  date: LocalDate;
  use: number;
}

/** Weekly usage pattern of an aircraft. */
export interface UsagePattern {
  /** Weekly sums, oldest first; the last week ends on the requested day. */
  weeks: number[];
  /** Daily mean. */
  perDay: number;
  /** Number of known weeks. */
  known: number;
}

/** Minimum history for a pattern. */
const MIN_WEEKS = 8;
const MAX_WEEKS = 104;
/** About a year: from here on the same season is used. */
const SEASONAL_WEEKS = 50;
/** Weeks within this distance of the same time of year count as its season. */
const SEASON_WEEKS = 6;
/** A week above this multiple of the median is a single trip, not usual flying. */
const WILD = 4;

/**
 * Usage pattern of a meter from its days: weeks of the last two years. A week above four times the median of the flown weeks is
 * capped, so that one long trip does not distort it. Undefined with fewer than eight weeks since the first known day, or nothing
 * flown. A day
 * that is not a valid date is skipped.
 * Valid range: uses ≥ 0. Complexity: O(days).
 */
export function usualFlying(days: readonly DayUse[], today: LocalDate): UsagePattern | undefined {
  const now = dayNumber(today);
  const sums = new Map<number, number>();
  let oldest = now;
  for (const { date, use } of days) {
    if (!isLocalDate(date)) continue;
    const day = dayNumber(date);
    if (day > now || !(use >= 0)) continue;
    const week = Math.floor((now - day) / 7);
    if (week >= MAX_WEEKS) continue;
    oldest = Math.min(oldest, day);
    sums.set(week, (sums.get(week) ?? 0) + use);
  }
  // The first week of the record is incomplete.
  const known = Math.floor((now - oldest) / 7);
  if (known < MIN_WEEKS) return undefined;
  const raw = Array.from({ length: known }, (_, i) => sums.get(known - 1 - i) ?? 0);
  const flown = raw.filter((use) => use > 0).sort((a, b) => a - b);
  if (flown.length === 0) return undefined;
  const usual = flown[flown.length >> 1] as number;
  const weeks = raw.map((use) => Math.min(use, WILD * usual));
  return { weeks, known, perDay: weeks.reduce((sum, use) => sum + use, 0) / (known * 7) };
}

/** Forecast of when a value is reached. */
export interface WhenDue {
  /** Nine times in ten between these days; absent beyond the horizon. */
  from: LocalDate;
  to?: LocalDate;
  /** Median. */
  middle?: LocalDate;
}

const RUNS = 400;
/** Weeks drawn together, as flying comes in spells. */
const BLOCK = 3;

/**
 * Forecasts when the remaining amount of a meter is used up, from the aircraft's usage pattern: its own weeks are drawn
 * repeatedly in blocks of three (from the same season if a year is known); the interval holds nine of ten results. Deterministic
 * for the same history.
 * Valid range: left ≥ 0 (already exceeded means due today); horizon in days. Complexity: O(runs · weeks).
 * Source: moving block bootstrap, Künsch, Ann. Statist. 17 (1989) (from memory).
 */
export function whenUsedUp(
  left: number,
  { weeks, known }: UsagePattern,
  today: LocalDate,
  horizonDays = 730,
): WhenDue {
  if (left <= 0) return { from: today, middle: today, to: today };
  const most = Math.ceil(horizonDays / 7);
  const random = seededRandom(known * 7919 + Math.round(left * 10));
  const seasonal = known >= SEASONAL_WEEKS;
  const days: number[] = [];
  // Uncertainty of the mean itself: the same number of weeks, drawn once per run.
  for (let run = 0; run < RUNS; run++) {
    const scale = driftOf(weeks, random);
    let sum = 0;
    let at = 0;
    let day = Number.POSITIVE_INFINITY;
    while (at < most && day === Number.POSITIVE_INFINITY) {
      const start = seasonal ? sameSeason(at, known, random) : Math.floor(random() * known);
      for (let i = 0; i < BLOCK && at < most; i++, at++) {
        const use = (weeks[(start + i) % known] as number) * scale;
        if (use > 0 && sum + use >= left) {
          day = at * 7 + Math.ceil(((left - sum) / use) * 7);
          break;
        }
        sum += use;
      }
    }
    days.push(day);
  }
  days.sort((a, b) => a - b);
  const quantile = (part: number) => days[Math.min(RUNS - 1, Math.floor(part * RUNS))] as number;
  const dated = (day: number) => (day > horizonDays ? undefined : addDays(today, day));
  const middle = dated(quantile(0.5));
  const to = dated(quantile(0.95));
  return {
    from: dated(quantile(0.05)) ?? addDays(today, horizonDays),
    ...(middle && { middle }),
    ...(to && { to }),
  };
}

/** Ratio of a resampled mean to the mean: how much another year with the same pattern may differ. */
function driftOf(weeks: readonly number[], random: () => number): number {
  const n = weeks.length;
  let sum = 0;
  let all = 0;
  for (const use of weeks) all += use;
  for (let drawn = 0; drawn < n; ) {
    const start = Math.floor(random() * n);
    for (let i = 0; i < BLOCK && drawn < n; i++, drawn++) sum += weeks[(start + i) % n] as number;
  }
  return all > 0 ? Math.max(0.2, sum / all) : 1;
}

/** A week of history from about the same time of year as the week ahead. */
function sameSeason(ahead: number, known: number, random: () => number): number {
  // The last known week is week −1; a year before the week ahead is week ahead − 52.
  const years = Math.max(1, Math.floor((known + SEASON_WEEKS) / 52));
  const back = 52 * (1 + Math.floor(random() * years));
  const near = Math.round((random() * 2 - 1) * SEASON_WEEKS);
  const at = known + ((ahead % 52) - back) + near;
  return ((at % known) + known) % known;
}
