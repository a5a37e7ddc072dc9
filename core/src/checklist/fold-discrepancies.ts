import type { FindingGrade } from "../verdict/judgement";
import { mergeEvents, type PreflightEvent, withoutUndone } from "./events";

export interface DiscrepancyState {
  id: string;
  registration: string;
  stationId: string;
  text: string;
  grade: FindingGrade;
  openedAt: string;
  openedBy: string;
  /** The latest measure or count. */
  measure?: string;
  observations: { at: string; crewId: string; state: "same" | "grown" | "gone"; measure?: string }[];
  closed?: { at: string; crewId: string; how: string };
}

/**
 * Folds events of any preflights to the discrepancies they opened, observed and closed. Order and repetition do not matter.
 * An observation of a discrepancy that was not opened here is left for the set that has its opening.
 */
export function foldDiscrepancies(events: readonly PreflightEvent[]): DiscrepancyState[] {
  const byId = new Map<string, DiscrepancyState>();
  const counted = withoutUndone(mergeEvents(events));
  // Openings first: another device's observation may carry a smaller id when that device's clock is behind.
  for (const event of counted) {
    if (event.type !== "discrepancy.opened" || byId.has(event.data.discrepancyId)) continue;
    const { discrepancyId, registration, stationId, text, grade, measure } = event.data;
    byId.set(discrepancyId, {
      id: discrepancyId,
      registration,
      stationId,
      text,
      grade,
      openedAt: event.at,
      openedBy: event.crewId,
      ...(measure !== undefined && { measure }),
      observations: [],
    });
  }
  for (const event of counted) {
    if (event.type === "discrepancy.observed") {
      const found = byId.get(event.data.discrepancyId);
      if (!found) continue;
      const { state, measure } = event.data;
      found.observations.push({
        at: event.at,
        crewId: event.crewId,
        state,
        ...(measure !== undefined && { measure }),
      });
      if (measure !== undefined) found.measure = measure;
    } else if (event.type === "discrepancy.closed") {
      const found = byId.get(event.data.discrepancyId);
      if (found) found.closed = { at: event.at, crewId: event.crewId, how: event.data.how };
    }
  }
  return [...byId.values()];
}
