import { addDays, type LocalDate } from "../calendar/local-date";

/** Take-offs and landings of one day. */
export interface FlownDay {
  date: LocalDate;
  takeOffs: number;
  landings: number;
}

/** Currency of a pilot: for instance three take-offs and landings within 90 days. */
export interface Recency {
  /** Last valid day; absent if the number was never reached. */
  until?: LocalDate;
  /** Take-offs within the period today. */
  takeOffs: number;
  landings: number;
  /** Number missing today. */
  missing: number;
}

/**
 * Recency from the log: a number of take-offs and landings within a number of days before the flight. It is valid until the
 * oldest of the most recent required ones leaves the period. Days after `today` do not count. Valid range: times ≥ 1, days ≥ 1.
 * Complexity: O(n log n).
 * Source: 14 CFR 61.57(a) and (b), three within the preceding 90 days (from memory).
 */
export function recency(
  flown: readonly FlownDay[],
  today: LocalDate,
  { times = 3, days = 90 }: { times?: number; days?: number } = {},
): Recency {
  const past = flown.filter(({ date }) => date <= today).sort((a, b) => (a.date < b.date ? 1 : -1));
  const from = addDays(today, -days);
  const within = past.filter(({ date }) => date >= from);
  const sum = (of: "takeOffs" | "landings") => within.reduce((all, day) => all + day[of], 0);
  const reached = (of: "takeOffs" | "landings") => {
    let count = 0;
    for (const day of past) {
      count += day[of];
      if (count >= times) return day.date;
    }
    return undefined;
  };
  const [up, down] = [reached("takeOffs"), reached("landings")];
  const oldest = up === undefined || down === undefined ? undefined : up < down ? up : down;
  const [takeOffs, landings] = [sum("takeOffs"), sum("landings")];
  return {
    takeOffs,
    landings,
    missing: Math.max(0, times - Math.min(takeOffs, landings)),
    ...(oldest && { until: addDays(oldest, days) }),
  };
}
