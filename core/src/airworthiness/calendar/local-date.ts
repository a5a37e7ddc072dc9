import { QuantityError } from "../../units/convert";

/** A calendar day at some place, "2026-03-31": neither a time nor in a time zone. */
export type LocalDate = string;

const DAY_MS = 86_400_000;
const WRITTEN = /^(\d{4})-(\d{2})-(\d{2})$/;

/**
 * Day number, 0 for 1 January 1970. Valid range: the years 1900 to 2199; throws QuantityError for an invalid date such as 30
 * February. Source: Gregorian calendar.
 */
export function dayNumber(date: LocalDate): number {
  const [, year, month, day] = WRITTEN.exec(date)?.map(Number) ?? [];
  const ms = year === undefined ? Number.NaN : Date.UTC(year, (month as number) - 1, day as number);
  if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== date)
    throw new QuantityError(`${date} is not a valid date.`);
  if ((year as number) < 1900 || (year as number) > 2199)
    throw new QuantityError(`${date} is out of range. Enter a year from 1900 to 2199.`);
  return ms / DAY_MS;
}

/** True for a valid calendar day. Never throws. */
export function isLocalDate(words: string): boolean {
  try {
    dayNumber(words);
    return true;
  } catch {
    return false;
  }
}

/** Day with this number. */
export function dateOfDay(day: number): LocalDate {
  return new Date(day * DAY_MS).toISOString().slice(0, 10);
}

/** Adds days, or subtracts if negative. Throws QuantityError as `dayNumber`. */
export function addDays(date: LocalDate, days: number): LocalDate {
  return dateOfDay(dayNumber(date) + days);
}

/** Days from one date to another; negative if the second is earlier. */
export function daysBetween(from: LocalDate, to: LocalDate): number {
  return dayNumber(to) - dayNumber(from);
}

/**
 * Adds calendar months, keeping the day of the month, or the last day in a shorter month: 31 January plus one month is 28 or 29
 * February. `day` is the day of the month to return to: 28 February plus one month is 31 March again. Valid range: whole months,
 * |months| ≤ 1200; throws QuantityError otherwise.
 */
export function addMonths(date: LocalDate, months: number, day = Number(date.slice(8))): LocalDate {
  if (!Number.isInteger(months) || Math.abs(months) > 1200)
    throw new QuantityError("Enter a whole number of months.");
  const from = new Date(dayNumber(date) * DAY_MS);
  const first = new Date(Date.UTC(from.getUTCFullYear(), from.getUTCMonth() + months, 1));
  const last = lastDayOf(first.getUTCFullYear(), first.getUTCMonth());
  return dateOfDay(first.getTime() / DAY_MS + Math.min(day, last) - 1);
}

/** Last day of this month. */
export function endOfMonth(date: LocalDate): LocalDate {
  const from = new Date(dayNumber(date) * DAY_MS);
  const last = lastDayOf(from.getUTCFullYear(), from.getUTCMonth());
  return `${date.slice(0, 8)}${last}`;
}

function lastDayOf(year: number, month: number): number {
  return new Date(Date.UTC(year, month + 1, 0)).getUTCDate();
}

const calendars = new Map<string, Intl.DateTimeFormat>();

/**
 * Calendar day at a place and time: a limit ends at midnight at the aircraft's base, not in Greenwich. `at` in ISO 8601 with
 * zone; `timeZone` as IANA name. Throws QuantityError if either is invalid.
 */
export function localDate(at: string, timeZone = "UTC"): LocalDate {
  const moment = new Date(at);
  if (Number.isNaN(moment.getTime())) throw new QuantityError(`${at} is not a valid date and time.`);
  let calendar = calendars.get(timeZone);
  if (!calendar) {
    if (!isTimeZone(timeZone)) throw new QuantityError(`${timeZone} is not a valid time zone.`);
    calendar = new Intl.DateTimeFormat("en-CA", {
      timeZone,
      year: "numeric",
      month: "2-digit",
      day: "2-digit",
    });
    calendars.set(timeZone, calendar);
  }
  const part = (type: string) => calendar.formatToParts(moment).find((p) => p.type === type)?.value ?? "";
  return `${part("year").padStart(4, "0")}-${part("month")}-${part("day")}`;
}

/** True for a known IANA time zone. */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat("en-CA", { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

const MONTHS = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];

/** Date in words, "31 March 2027". Throws QuantityError as `dayNumber`. */
export function spokenDate(date: LocalDate): string {
  dayNumber(date);
  return `${Number(date.slice(8))} ${MONTHS[Number(date.slice(5, 7)) - 1]} ${date.slice(0, 4)}`;
}
