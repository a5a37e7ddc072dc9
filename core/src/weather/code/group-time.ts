import { ReportError } from "../report";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** Day, hour and minute as written; undefined if there is no such time. */
function parts(text: string): { day: number; hour: number; minute: number } | undefined {
  const [day, hour, minute] = [text.slice(0, 2), text.slice(2, 4), text.slice(4, 6) || "0"].map(Number) as [
    number,
    number,
    number,
  ];
  return day >= 1 && day <= 31 && hour <= 24 && minute <= 59 && (hour < 24 || minute === 0)
    ? { day, hour, minute }
    : undefined;
}

/** That day and time in the month that lies `months` from the month of `near`; undefined if that month has no such day. */
function inMonth(
  { day, hour, minute }: { day: number; hour: number; minute: number },
  near: number,
  months: number,
) {
  const month = new Date(near);
  const at = Date.UTC(month.getUTCFullYear(), month.getUTCMonth() + months, day, hour, minute);
  return new Date(at - hour * HOUR).getUTCDate() === day ? at : undefined;
}

/**
 * Latest time with this day, hour and minute ("151350") that is not more than `ahead` after `now`. Throws ReportError for a time
 * that does not exist.
 */
export function latest(text: string, now: string, ahead = DAY): string {
  const time = parts(text);
  if (!time) throw new ReportError("The day or time is not possible. Check the report.");
  const near = Date.parse(now);
  for (let months = 1; months > -5; months--) {
    const at = inMonth(time, near, months);
    if (at !== undefined && at <= near + ahead) return new Date(at).toISOString();
  }
  throw new ReportError("The date is not possible. Check the report.");
}

/** First time with this day and hour ("1606") or day, hour and minute from `start` on; undefined if there is none within days. */
export function firstFrom(text: string, start: string, within = 3 * DAY): string | undefined {
  const time = parts(text);
  const from = Date.parse(start);
  if (!time) return undefined;
  for (const months of [0, 1]) {
    const at = inMonth(time, from, months);
    if (at !== undefined && at >= from && at <= from + within) return new Date(at).toISOString();
  }
  return undefined;
}

/** First time of day ("1530") from `start` on; undefined if there is no such time. */
export function clockFrom(text: string, start: string): string | undefined {
  const [hour, minute] = [Number(text.slice(0, 2)), Number(text.slice(2, 4))];
  if (hour > 24 || minute > 59 || (hour === 24 && minute > 0)) return undefined;
  const midnight = Date.parse(`${start.slice(0, 10)}T00:00:00Z`);
  const at = midnight + hour * HOUR + minute * 60_000;
  return new Date(at >= Date.parse(start) ? at : at + DAY).toISOString();
}
