import { daysBetween, type LocalDate } from "../calendar/local-date";
import type { DueItem } from "../due/due-item";
import type { LimitLeft } from "../due/judge-due";
import type { Totals } from "../meters/component";
import type { VisitItem } from "./plan-visits";
import { type UsagePattern, usualFlying, type WhenDue, whenUsedUp } from "./usage-pattern";

/** Forecast of when an item falls due, by its earliest limit. */
export interface DueWhen extends WhenDue {
  /** The governing limit. */
  limit?: LimitLeft;
  /** True for a printed or calendar date: no forecast. */
  certain: boolean;
}

/** Usage pattern of each meter of an aircraft, calculated once for many items; undefined if its history is too short. */
export function usualOf(
  days: readonly { date: LocalDate; uses: Totals }[],
  meters: readonly { id: string }[],
  today: LocalDate,
): Map<string, UsagePattern | undefined> {
  return new Map(
    meters.map(({ id }) => [
      id,
      usualFlying(
        days.map(({ date, uses }) => ({ date, use: uses[id] ?? 0 })),
        today,
      ),
    ]),
  );
}

/**
 * Forecasts when an item falls due: exact for a calendar limit, from the usage pattern for a meter. Of several limits, the one that
 * can come first governs: hours that may be used up from 6 August come before a date of 18 August; the range ends where the first
 * surely ends. Undefined if no limit gives a day: too little history, or unknown. Valid range: limits judged today.
 * Complexity: O(limits · runs · weeks).
 */
export function whenDue(
  limits: readonly LimitLeft[],
  usual: ReadonlyMap<string, UsagePattern | undefined>,
  today: LocalDate,
): DueWhen | undefined {
  const all = limits.flatMap((limit): DueWhen[] => {
    const { point } = limit;
    if ("date" in point)
      return [{ from: point.date, middle: point.date, to: point.date, certain: true, limit }];
    const flying = usual.get(point.meter);
    return flying ? [{ ...whenUsedUp(limit.left, flying, today), certain: false, limit }] : [];
  });
  const first = all.reduce<DueWhen | undefined>(
    (before, one) => (before && before.from <= one.from ? before : one),
    undefined,
  );
  if (!first) return undefined;
  const earliest = (of: "middle" | "to") =>
    all.reduce((least, one) => ((one[of] ?? "9999") < least ? (one[of] as LocalDate) : least), "9999");
  const [middle, to] = [earliest("middle"), earliest("to")];
  return { ...first, ...(middle !== "9999" && { middle }), ...(to !== "9999" && { to }) };
}

/** Kinds that are renewed or signed, not done in a workshop. */
const NO_WORKSHOP: ReadonlySet<DueItem["kind"]> = new Set([
  "document",
  "database",
  "daily inspection",
  "release",
]);

/**
 * The item as input for visit planning: days from today to the earliest likely due day, its interval, and from when the work counts.
 * Undefined for items no workshop does, or without a forecast.
 */
export function visitItem(
  item: DueItem,
  limits: readonly LimitLeft[],
  usual: ReadonlyMap<string, UsagePattern | undefined>,
  today: LocalDate,
): VisitItem | undefined {
  if (item.doneBy === "pilot" || (item.workH === undefined && NO_WORKSHOP.has(item.kind))) return undefined;
  const when = whenDue(limits, usual, today);
  if (!when) return undefined;
  let interval = Number.POSITIVE_INFINITY;
  for (const limit of item.limits) {
    if (limit.by === "months") interval = Math.min(interval, Math.round(limit.months * 30.44));
    if (limit.by === "days") interval = Math.min(interval, limit.days);
    const perDay = limit.by === "meter" ? usual.get(limit.meter)?.perDay : undefined;
    if (limit.by === "meter" && perDay) interval = Math.min(interval, Math.floor(limit.every / perDay));
  }
  return {
    id: item.id,
    due: daysBetween(today, when.from),
    interval: Math.max(1, interval),
    ...(item.notBeforeDays !== undefined && { window: item.notBeforeDays }),
  };
}
