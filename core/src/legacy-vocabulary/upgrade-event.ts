import { isRecord, renamed, upgradeMethod, withTodaysCause } from "./rename";

/** Renamed event types. */
const TYPES: Readonly<Record<string, string>> = { "item.deferred": "item.postponed" };

/**
 * Upgrades an event written by any version of Cravix; the record itself is never changed. Current events are returned unchanged,
 * as are invalid ones, which validation rejects later.
 */
export function upgradeEvent(input: unknown): unknown {
  if (!isRecord(input)) return input;
  const event = "preflightId" in input ? renamed(input, { preflightId: "streamId" }) : input;
  const { type, data } = event;
  if (typeof type === "string" && Object.hasOwn(TYPES, type)) return { ...event, type: TYPES[type] };
  if (!isRecord(data)) return event;
  if (type === "item.answered" && data.outcome === "sound")
    return { ...event, data: { ...data, outcome: "checked" } };
  if (type === "discrepancy.opened") {
    const now = withTodaysCause(data);
    return now === data ? event : { ...event, data: now };
  }
  if (type === "preflight.started" && "school" in data && !("preferences" in data)) {
    const { school, ...rest } = data;
    return { ...event, data: { ...rest, preferences: upgradePreferences(school) } };
  }
  return event;
}

/** Upgrades a pilot's preferences, formerly called `school`. */
export function upgradePreferences(school: unknown): unknown {
  return isRecord(school) && "method" in school
    ? { ...school, method: upgradeMethod(school.method) }
    : school;
}
