/** A flight later than this after the last one was put away is no turnaround: enough can have happened to walk the whole list (common practice). */
export const TURNAROUND_HOURS = 2;
/** With more than one refuelling since, nobody knows any more what was put into what (common practice). */
const MOST_REFUELLINGS = 1;
/** What is put in within so long is one refuelling, tank after tank (common practice). */
const ONE_REFUELLING_MS = 30 * 60_000;
const HOUR_MS = 3_600_000;

/** An earlier preflight of this aircraft, as far as a turnaround goes. Times ISO 8601. */
export interface EarlierPreflight {
  crewId: string | null;
  decision: "fly" | "not flying" | null;
  signedAt: string | null;
  /** When something was last answered in it: after the flight, what was put away and written down. */
  lastAt: string | null;
}

/**
 * Why the next flight is no turnaround, in a sentence; undefined where it is one: the last flight was this pilot's, it was put away less than two
 * hours ago, nobody has worked on the aircraft since, and it was refuelled once at most. `walks` in any order; `now` in milliseconds. Source: common
 * practice.
 */
export function turnaroundBlockReason(
  walks: readonly EarlierPreflight[],
  crewId: string | null,
  now: number,
  since: { uplifts: readonly string[]; signOffs: readonly string[] },
): string | undefined {
  const signed = walks.filter((walk) => walk.signedAt !== null);
  const last = signed.sort((a, b) => ((a.signedAt ?? "") < (b.signedAt ?? "") ? 1 : -1))[0];
  if (!last?.signedAt || last.decision !== "fly")
    return "There is no previous flight. Do the full checklist.";
  if (last.crewId !== crewId) return "Another pilot flew it last: do the full checklist.";
  if (!last.lastAt || last.lastAt <= last.signedAt)
    return "The last flight is not logged yet. Finish its after-flight checks first, at least the hours.";
  const hours = (now - Date.parse(last.lastAt)) / HOUR_MS;
  if (!(hours <= TURNAROUND_HOURS))
    return `Parked for more than ${TURNAROUND_HOURS} hours: do the full checklist.`;
  const behind = (at: string) => last.signedAt !== null && at > last.signedAt;
  if (since.signOffs.some(behind))
    return "Maintenance was done since the last flight: do the full checklist.";
  if (refuellings(since.uplifts.filter(behind)) > MOST_REFUELLINGS)
    return "Refuelled more than once since the last flight: do the full checklist.";
  return undefined;
}

/** How many refuellings these uplifts were. */
function refuellings(uplifts: readonly string[]): number {
  const times = uplifts.map((at) => Date.parse(at)).sort((a, b) => a - b);
  return times.filter((at, i) => i === 0 || at - (times[i - 1] ?? at) > ONE_REFUELLING_MS).length;
}
