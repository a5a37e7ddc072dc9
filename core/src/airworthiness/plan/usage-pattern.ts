import { seededRandom } from "../../units/seeded-random";
import { addDays, dayNumber, type LocalDate } from "../calendar/local-date";

/** What one meter gained on one day. */
export interface DayUse {
  date: LocalDate;
  use: number;
}

/** How an aircraft is usually flown, week by week. */
export interface UsagePattern {
  /** Sums of weeks, oldest first; the last one ends on the day that was asked for. */
  weeks: number[];
  /** A day's mean. */
  perDay: number;
  /** Weeks that are known. */
  known: number;
}

/** With less than this nobody can say how it is usually flown. */
const LEAST_WEEKS = 8;
const MOST_WEEKS = 104;
/** A year, and some: then the same season is asked. */
const SEASONAL_WEEKS = 50;
/** Weeks this near to the same time of the year are of its season. */
const SEASON_WEEKS = 6;
/** A week so many times the usual busy one is one trip, not a habit. */
const WILD = 4;

/**
 * How a meter usually runs, from its days: weeks of the last two years. One ferry across a continent is no habit: a week beyond four times the median of
 * the weeks that were flown counts as that. Undefined with fewer than eight weeks since the first day that is known, or nothing flown.
 * Valid range: uses ≥ 0. Complexity: O(days).
 */
export function usualFlying(days: readonly DayUse[], today: LocalDate): UsagePattern | undefined {
  const now = dayNumber(today);
  const sums = new Map<number, number>();
  let oldest = now;
  for (const { date, use } of days) {
    const day = dayNumber(date);
    if (day > now || !(use >= 0)) continue;
    const week = Math.floor((now - day) / 7);
    if (week >= MOST_WEEKS) continue;
    oldest = Math.min(oldest, day);
    sums.set(week, (sums.get(week) ?? 0) + use);
  }
  // The week in which the record begins is not a whole one.
  const known = Math.floor((now - oldest) / 7);
  if (known < LEAST_WEEKS) return undefined;
  const raw = Array.from({ length: known }, (_, i) => sums.get(known - 1 - i) ?? 0);
  const flown = raw.filter((use) => use > 0).sort((a, b) => a - b);
  if (flown.length === 0) return undefined;
  const usual = flown[flown.length >> 1] as number;
  const weeks = raw.map((use) => Math.min(use, WILD * usual));
  return { weeks, known, perDay: weeks.reduce((sum, use) => sum + use, 0) / (known * 7) };
}

/** When something will be reached. */
export interface WhenDue {
  /** Nine of ten times not before this, and not after that; absent where it is beyond the horizon. */
  from: LocalDate;
  to?: LocalDate;
  /** As often before as after. */
  middle?: LocalDate;
}

const RUNS = 400;
/** Weeks that are drawn together: flying comes in spells. */
const BLOCK = 3;

/**
 * When so much more of a meter will be used up, by this aircraft's usual flying: its own weeks are drawn again and again in spells of three (of the same
 * season where a year is known), and each drawing says a day; the interval holds nine of ten. Repeatable: the same history says the same.
 * Valid range: left ≥ 0 (what is passed already is due today); horizon in days. Complexity: O(runs · weeks).
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
  // So uncertain is the mean itself: as many weeks as there are, drawn once for each run.
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

/** How far another year of the same habit may lie off this one, as a factor of the mean: the mean of as many weeks drawn in spells, over the mean. */
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

/** A week of history of about the same time of the year as the week that lies so far ahead. */
function sameSeason(ahead: number, known: number, random: () => number): number {
  // The last known week is week −1; a year before the week ahead is week ahead − 52.
  const years = Math.max(1, Math.floor((known + SEASON_WEEKS) / 52));
  const back = 52 * (1 + Math.floor(random() * years));
  const near = Math.round((random() * 2 - 1) * SEASON_WEEKS);
  const at = known + ((ahead % 52) - back) + near;
  return ((at % known) + known) % known;
}
