import type { AskedBy, DiscrepancyDeferral } from "../../airworthiness/life/deferral";
import type { MeasureLimit } from "../../airworthiness/life/measure-trend";
import { MAX_PHOTOGRAPHS, type Photograph } from "../../airworthiness/life/photograph";
import type { FindingGrade } from "../../judgement/judgement";
import { byEventId, mergeEvents, type PreflightEvent, recordOrder } from "./events";
import { readStream } from "./read-stream";

export interface DiscrepancyState {
  id: string;
  registration: string;
  stationId: string;
  /** Item at which it was found, if any. */
  itemId?: string;
  text: string;
  grade: FindingGrade;
  /** Its cause, if judged. */
  cause?: string;
  openedAt: string;
  openedBy: string;
  /** Latest measure or count. */
  measure?: string;
  observations: { at: string; crewId: string; state: "same" | "grown" | "gone"; measure?: string }[];
  closed?: { at: string; crewId: string; how: string; noFault?: true; release?: string };
  /** Latest deferral. */
  deferred?: DiscrepancyDeferral & { at: string; crewId: string };
  /** Changes of grade, oldest first. */
  grades?: { at: string; crewId: string; grade: FindingGrade; why: string }[];
  /** Advice obtained. */
  asked?: { at: string; crewId: string; whom: string; by: AskedBy; said: string }[];
  /** Latest limit for its measure. */
  limit?: MeasureLimit & { at: string; crewId: string };
  photographs?: (Photograph & { at: string; crewId: string })[];
  /** Set if merged into another one as evidence. */
  merged?: { at: string; crewId: string; into: string };
  /** Set if withdrawn by the person who logged it. */
  withdrawn?: { at: string; crewId: string };
}

/** An event about a discrepancy. */
export type DiscrepancyEvent = Extract<PreflightEvent, { data: { discrepancyId: string } }>;

export function isAboutDiscrepancy(event: PreflightEvent): event is DiscrepancyEvent {
  return "discrepancyId" in event.data;
}

/**
 * Discrepancy events of one stream that count: undone observations and unauthorised withdrawals are dropped. `events` in record
 * order. Complexity: O(n).
 */
export function countedDiscrepancyEvents(events: readonly PreflightEvent[]): DiscrepancyEvent[] {
  const about = events.filter(isAboutDiscrepancy);
  if (about.length === 0) return about;
  const { takenBack, withdrawn } = readStream(events);
  const withdrawals = new Set([...withdrawn.values()].map((event) => event.id));
  return about.filter(
    (event) =>
      !takenBack.has(event.id) && (event.type !== "discrepancy.withdrawn" || withdrawals.has(event.id)),
  );
}

/**
 * Folds events of any streams into discrepancies. Order and repetition do not matter. An observation without its opening is left
 * for the set that contains the opening.
 */
export function foldDiscrepancies(events: readonly PreflightEvent[]): DiscrepancyState[] {
  return foldCountedDiscrepancies(countedInAllStreams(events));
}

/** Discrepancy events of any streams that count. */
export function countedInAllStreams(events: readonly PreflightEvent[]): DiscrepancyEvent[] {
  const streams = new Map<string, PreflightEvent[]>();
  const merged = mergeEvents(events);
  for (const event of merged) {
    const stream = streams.get(event.streamId);
    if (stream) stream.push(event);
    else streams.set(event.streamId, [event]);
  }
  // Before the undo rules an undo applied to any stream.
  const asBefore = new Set(
    merged.flatMap((e) => (e.type === "item.undone" && e.rules === 1 ? [e.data.eventId] : [])),
  );
  return [...streams.values()].flatMap(countedDiscrepancyEvents).filter((event) => !asBefore.has(event.id));
}

/**
 * Folds events already known to count, in any order, each once. A discrepancy has the id of its opening event; older records may
 * use another id, whose first opening counts. A second sign-off changes nothing.
 */
export function foldCountedDiscrepancies(counted: readonly DiscrepancyEvent[]): DiscrepancyState[] {
  const events = recordOrder(counted);
  const openings = new Map<string, DiscrepancyEvent & { type: "discrepancy.opened" }>();
  // Openings first: another device's observation may carry a smaller id if that device's clock is behind.
  for (const event of events) {
    if (event.type !== "discrepancy.opened") continue;
    const { discrepancyId } = event.data;
    if (!openings.has(discrepancyId) || event.id === discrepancyId) openings.set(discrepancyId, event);
  }
  const byId = new Map<string, DiscrepancyState>();
  for (const [id, event] of openings) {
    const { registration, stationId, itemId, text, grade, measure, cause } = event.data;
    byId.set(id, {
      id,
      registration,
      stationId,
      text,
      grade,
      ...(itemId && { itemId }),
      ...(cause && { cause }),
      openedAt: event.at,
      openedBy: event.crewId,
      ...(measure !== undefined && { measure }),
      observations: [],
    });
  }
  for (const event of events) {
    const found = byId.get(event.data.discrepancyId);
    if (found) applyDiscrepancyEvent(found, event);
  }
  return [...byId.values()].sort(byEventId);
}

type Appliers = {
  [T in DiscrepancyEvent["type"]]?: (
    found: DiscrepancyState,
    event: Extract<DiscrepancyEvent, { type: T }>,
  ) => void;
};

const APPLIERS: Appliers = {
  "discrepancy.observed": (found, { at, crewId, data: { state, measure } }) => {
    found.observations = [
      ...found.observations,
      { at, crewId, state, ...(measure !== undefined && { measure }) },
    ];
    if (measure !== undefined) found.measure = measure;
  },
  "discrepancy.closed": (found, { at, crewId, rules, data: { how, noFault, release } }) => {
    if (!found.closed || rules === 1)
      found.closed = { at, crewId, how, ...(noFault && { noFault }), ...(release && { release }) };
  },
  "discrepancy.deferred": (found, { at, crewId, data: { discrepancyId: _, ...deferral } }) => {
    found.deferred = { ...deferral, at, crewId };
  },
  "discrepancy.regraded": (found, { at, crewId, data: { grade, why } }) => {
    found.grade = grade;
    found.grades = [...(found.grades ?? []), { at, crewId, grade, why }];
  },
  "discrepancy.asked": (found, { at, crewId, data: { whom, by, said } }) => {
    found.asked = [...(found.asked ?? []), { at, crewId, whom, by, said }];
  },
  "discrepancy.limited": (found, { at, crewId, data: { most, unit, source } }) => {
    found.limit = { most, unit, source, at, crewId };
  },
  "discrepancy.photographed": (found, { at, crewId, data: { photograph, width, height } }) => {
    const known = found.photographs ?? [];
    // Photos beyond the maximum, added by two devices at once, stay on record but are not listed.
    if (known.length < MAX_PHOTOGRAPHS && !known.some((one) => one.photograph === photograph))
      found.photographs = [...known, { photograph, width, height, at, crewId }];
  },
  "discrepancy.merged": (found, { at, crewId, data: { into } }) => {
    // A discrepancy cannot be evidence of itself.
    if (into !== found.id) found.merged = { at, crewId, into };
  },
  "discrepancy.withdrawn": (found, { at, crewId }) => {
    found.withdrawn ??= { at, crewId };
  },
};

/** Changes a discrepancy by one of its events. Events that only open it change nothing. */
export function applyDiscrepancyEvent(found: DiscrepancyState, event: DiscrepancyEvent): void {
  const apply = APPLIERS[event.type] as
    | ((state: DiscrepancyState, one: DiscrepancyEvent) => void)
    | undefined;
  apply?.(found, event);
}
