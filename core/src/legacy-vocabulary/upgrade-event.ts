import { isRecord, methodInTodaysWords, renamed, withTodaysCause } from "./rename";

/** What a preflight's events said before words were changed, and what they say since. */
const TYPES: Readonly<Record<string, string>> = { "item.deferred": "item.postponed" };

/**
 * An event as it is said today, whatever version of Cravix wrote it: what is on record is never changed, so it is read anew. One that says
 * nothing in old words comes back as it is; what is no event at all as well, for the check behind this to refuse.
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
    return { ...event, data: { ...rest, preferences: preferencesInTodaysWords(school) } };
  }
  return event;
}

/** A pilot's preferences, as they were called `school`. */
export function preferencesInTodaysWords(school: unknown): unknown {
  return isRecord(school) && "method" in school
    ? { ...school, method: methodInTodaysWords(school.method) }
    : school;
}
