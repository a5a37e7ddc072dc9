import type { Photograph } from "../../airworthiness/life/photograph";
import { type PreflightEvent, recordOrder } from "../stream/events";
import {
  applyDiscrepancyEvent,
  countedInAllStreams,
  type DiscrepancyEvent,
  type DiscrepancyState,
  foldCountedDiscrepancies,
} from "../stream/fold-discrepancies";
import type { OpenDiscrepancy } from "./open-discrepancy";

/**
 * Open discrepancies of one aircraft: those `known` to the server, continued by events that its answer may not include, then those
 * that the events open. A withdrawal counts only with its opening, which says who may withdraw. `nameOf` gives the name of a crew member. Complexity: O(n log n) in events.
 */
export function openAfterEvents(
  known: readonly OpenDiscrepancy[],
  events: readonly PreflightEvent[],
  { registration, nameOf }: { registration: string; nameOf: (crewId: string) => string },
): OpenDiscrepancy[] {
  const counted = countedInAllStreams(events);
  const opened = foldCountedDiscrepancies(counted).filter((one) => one.registration === registration);
  const changes = byDiscrepancy(recordOrder(counted));
  const continued = known
    .filter(({ id }) => !opened.some((one) => one.id === id))
    .flatMap((one) => {
      const after = changes.get(one.id);
      if (!after) return [one];
      const state = stateOf(one, registration);
      for (const event of after) applyDiscrepancyEvent(state, event);
      return isOpen(state) ? [openOf(state, one.openedBy)] : [];
    });
  return [...continued, ...opened.filter(isOpen).map((one) => openOf(one, nameOf(one.openedBy)))];
}

function byDiscrepancy(events: readonly DiscrepancyEvent[]): Map<string, DiscrepancyEvent[]> {
  const found = new Map<string, DiscrepancyEvent[]>();
  for (const event of events) {
    const { discrepancyId } = event.data;
    found.set(discrepancyId, [...(found.get(discrepancyId) ?? []), event]);
  }
  return found;
}

const isOpen = ({ closed, withdrawn, merged }: DiscrepancyState): boolean => !closed && !withdrawn && !merged;

function stateOf(open: OpenDiscrepancy, registration: string): DiscrepancyState {
  const { deferral, limit, photographs, ...rest } = open;
  const since = { at: open.openedAt, crewId: open.openedBy };
  return {
    ...rest,
    registration,
    observations: [],
    ...(deferral && { deferred: { ...deferral, ...since } }),
    ...(limit && { limit: { ...limit, ...since } }),
    ...(photographs && { photographs: photographs.map((one) => ({ ...one, ...since })) }),
  };
}

function openOf(state: DiscrepancyState, openedBy: string): OpenDiscrepancy {
  const { id, stationId, text, grade, openedAt, cause, measure, deferred, limit, photographs } = state;
  return {
    id,
    stationId,
    text,
    grade,
    openedAt,
    openedBy,
    ...(cause !== undefined && { cause }),
    ...(measure !== undefined && { measure }),
    ...(deferred && { deferral: withoutSigner(deferred) }),
    ...(limit && { limit: withoutSigner(limit) }),
    ...(photographs && { photographs: photographs.map((one): Photograph => withoutSigner(one)) }),
  };
}

function withoutSigner<T extends { at: string; crewId: string }>(one: T): Omit<T, "at" | "crewId"> {
  const { at: _at, crewId: _crewId, ...rest } = one;
  return rest;
}
