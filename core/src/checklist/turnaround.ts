/** Maximum hours since the last flight was secured; after that the full checklist is required (common practice). */
export const TURNAROUND_HOURS = 2;
/** With more refuellings, it is unclear which fuel is in which tank (common practice). */
const MAX_REFUELLINGS = 1;
/** Uplifts within this time are one refuelling (common practice). */
const ONE_REFUELLING_MS = 30 * 60_000;
const HOUR_MS = 3_600_000;

/** An earlier preflight of this aircraft, as needed for a turnaround. Times ISO 8601. */
export interface EarlierPreflight {
  crewId: string | null;
  decision: "fly" | "not flying" | null;
  signedAt: string | null;
  /** Time of its last answer, which includes the after-flight checks. */
  lastAt: string | null;
}

/**
 * Explains why the next flight cannot be a turnaround; undefined if it can. Required: the last flight was this pilot's and was
 * secured less than two hours ago, no maintenance since, and at most one refuelling. `walks` in any order; `now` in milliseconds.
 * Source: common practice.
 */
export function turnaroundBlockReason(
  walks: readonly EarlierPreflight[],
  crewId: string | null,
  now: number,
  since: { uplifts: readonly string[]; signOffs: readonly string[] },
): string | undefined {
  const signed = walks.filter((preflight) => preflight.signedAt !== null);
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
  if (refuellings(since.uplifts.filter(behind)) > MAX_REFUELLINGS)
    return "Refuelled more than once since the last flight: do the full checklist.";
  return undefined;
}

/** Number of refuellings these uplifts represent. */
function refuellings(uplifts: readonly string[]): number {
  const times = uplifts.map((at) => Date.parse(at)).sort((a, b) => a - b);
  return times.filter((at, i) => i === 0 || at - (times[i - 1] ?? at) > ONE_REFUELLING_MS).length;
}
