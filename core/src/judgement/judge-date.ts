import type { Judgement } from "./judgement";

const MONTH_AND_YEAR = /^(0[1-9]|1[0-2])\/(\d{4})$/;
const DAY_MS = 86_400_000;
/** Days before expiry when a replacement should be ordered (common practice). */
const SOON_DAYS = 45;

/**
 * Judges a printed expiry date, month and year as "06/2028", valid to the end of the month. Expired: ask; within 45 days: note.
 * Undefined for text that is not such a date. `now` in ISO 8601, UTC. Source: common practice; whether to fly with an expired
 * date is for the handbook and local rules.
 */
export function judgeDate(id: string, subject: string, date: string, now: string): Judgement | undefined {
  const [, month, year] = MONTH_AND_YEAR.exec(date) ?? [];
  if (!month || !year) return undefined;
  // Start of the following month.
  const ends = Date.UTC(Number(year), Number(month), 1);
  const left = ends - Date.parse(now);
  const daysLeft = Math.ceil(left / DAY_MS);
  const base = {
    id,
    subject,
    scope: "aircraft",
    limit: `until the end of ${date}`,
    source: { kind: "common practice", text: "the date on the label", example: false },
  } as const;
  if (!(left > 0))
    return {
      ...base,
      grade: "ask",
      sentence: `Expired: the label says ${date}.`,
      action: "Ask whether you may fly without it, and have it replaced.",
    };
  if (daysLeft <= SOON_DAYS)
    return {
      ...base,
      grade: "note",
      sentence: `The label says ${date}: ${daysLeft} ${daysLeft === 1 ? "day" : "days"} left.`,
      action: "Tell the person who orders replacements.",
    };
  return { ...base, grade: "within limits", sentence: `In date until the end of ${date}.` };
}
