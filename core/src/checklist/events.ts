import type { EngineFeel } from "../engine/judge-magnetos";
import type { Unit } from "../units/convert";
import type { FindingGrade, SignedVerdict } from "../verdict/judgement";
import type { Condition } from "./aircraft-type";

/** What each kind of event carries. Everything a person does is one of these, appended and never changed. */
export interface EventData {
  "preflight.started": {
    registration: string;
    listHash: string;
    conditions: Condition[];
    plannedFlightMin?: number;
  };
  "item.answered": { itemId: string; outcome: "sound" | "found"; value?: string };
  "item.deferred": { itemId: string };
  /** Going to an item out of turn. */
  "item.visited": { itemId: string };
  "item.undone": { eventId: string };
  "reading.taken": { itemId: string; key: string; value: number; unit: Unit; feel?: EngineFeel };
  "discrepancy.opened": {
    discrepancyId: string;
    registration: string;
    stationId: string;
    itemId?: string;
    text: string;
    grade: FindingGrade;
    measure?: string;
  };
  "discrepancy.observed": {
    discrepancyId: string;
    itemId: string;
    state: "same" | "grown" | "gone";
    measure?: string;
  };
  "discrepancy.closed": { discrepancyId: string; how: string };
  interrupted: { itemId?: string };
  resumed: { itemId?: string };
  "verdict.signed": {
    verdict: SignedVerdict;
    decision: "fly" | "not flying";
    reasons: string[];
    /** Who was asked, where the verdict was "ask first" and the pilot flies. */
    askedCrewId?: string;
  };
}

export type EventType = keyof EventData;
export const EVENT_TYPES: readonly EventType[] = [
  "preflight.started",
  "item.answered",
  "item.deferred",
  "item.visited",
  "item.undone",
  "reading.taken",
  "discrepancy.opened",
  "discrepancy.observed",
  "discrepancy.closed",
  "interrupted",
  "resumed",
  "verdict.signed",
];

export interface EventEnvelope<T extends EventType> {
  /** Time-ordered unique id (UUID version 7): the order of events is the order of their ids. */
  id: string;
  type: T;
  preflightId: string;
  deviceId: string;
  crewId: string;
  /** Device time, ISO 8601 in UTC. */
  at: string;
  data: EventData[T];
}

export type PreflightEvent = { [T in EventType]: EventEnvelope<T> }[EventType];

/** Union of two sets of events: each once, in the order of their ids. Repeats and arrival order do not matter. */
export function mergeEvents(...sets: readonly (readonly PreflightEvent[])[]): PreflightEvent[] {
  const byId = new Map<string, PreflightEvent>();
  for (const events of sets) for (const event of events) if (!byId.has(event.id)) byId.set(event.id, event);
  return [...byId.values()].sort(byEventId);
}

export function byEventId(a: { id: string }, b: { id: string }): number {
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}

/** Leaves out the undone events. An undo of an undo counts for nothing: undo is answered by answering again. */
export function withoutUndone(events: readonly PreflightEvent[]): PreflightEvent[] {
  const undone = new Set(events.flatMap((e) => (e.type === "item.undone" ? [e.data.eventId] : [])));
  if (undone.size === 0) return [...events];
  return events.filter((e) => e.type === "item.undone" || !undone.has(e.id));
}
