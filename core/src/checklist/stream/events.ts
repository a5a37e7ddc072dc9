import type { Condition } from "../../aircraft/aircraft-type";
import type { Preferences, RETURN_RULES } from "../../aircraft/preferences";
import type { EngineFeel } from "../../engine/classify-drop";
import type { Sample } from "../../fuel/drain/fuel-sample";
import type { FuelTold, SampleFate } from "../../fuel/fuel-told";
import type { FuelUnit } from "../../fuel/grade/fuel-amount";
import type { FindingGrade, SignedVerdict } from "../../judgement/judgement";
import type { OilHeat } from "../../oil/judge-oil";
import type { RunUpRead, TraceSource } from "../../run-up/record/run-up-read";
import type { Unit } from "../../units/convert";

/** What broke into the walk: somebody spoke, the screen went dark or another program came up, or nothing was answered for long. */
export const INTERRUPTION_CAUSES = ["spoken to", "screen left", "long gap"] as const;
export type InterruptionCause = (typeof INTERRUPTION_CAUSES)[number];
/** How a walk is gone on with after an interruption. */
export type ReturnWay = (typeof RETURN_RULES)[number] | "where I was";

/** What each kind of event carries. Everything a person does is one of these, appended and never changed. */
export interface EventData {
  "preflight.started": {
    registration: string;
    listHash: string;
    conditions: Condition[];
    plannedFlightMin?: number;
    preferences?: Preferences;
    /** Outside air, for what the start takes from the battery. */
    celsius?: number;
  };
  "item.answered": {
    itemId: string;
    outcome: "checked" | "found";
    value?: string;
    /** Missed in the flow from memory, and done when the list was read. */
    caught?: boolean;
    /** Who gave the answer, where one reads and another answers. */
    byCrewId?: string;
  };
  /** A whole station done from memory; its list is read afterwards. */
  "station.flowed": { stationId: string };
  /** A second person is here: to read and answer in turns, or to hold what the other moves. */
  "crew.joined": { crewId: string };
  "crew.left": { crewId: string };
  "item.postponed": { itemId: string };
  /** Going to an item out of turn. */
  "item.visited": { itemId: string };
  "item.undone": { eventId: string };
  "reading.taken": {
    itemId: string;
    key: string;
    value: number;
    unit: Unit;
    feel?: EngineFeel;
    /** Oil read with the engine hot or cold. */
    heat?: OilHeat;
    /** Taken out of an engine monitor's trace; without it a person read it. */
    from?: TraceSource;
  };
  /** One cup from one drain, and what became of it. */
  "sample.taken": Sample & { itemId: string; fate?: SampleFate };
  /** Wings rocked, tail lowered, waited: every drain is to be taken again. */
  "wings.rocked": Record<string, never>;
  /** Fuel put in, by a receipt or by word; in a walk, what was dipped and drained before it counts no more. */
  "fuel.uplifted": {
    registration: string;
    tankId?: string;
    amount: number;
    unit: FuelUnit;
    grade?: string;
    receipt?: string;
    from: "pump" | "typed" | "file";
  };
  /** What a person knows about today's fuel that no instrument shows. */
  "fuel.told": FuelTold;
  "oil.added": { registration: string; engine?: string; qt: number; grade?: string; sealed: boolean };
  /** One blade pulled through by hand, without resistance. */
  "blade.pulled": { itemId: string; blade: number };
  /** What an engine monitor's trace of a run-up amounted to; its numbers follow as readings of their items. */
  "run-up.read": RunUpRead & { itemId: string };
  "discrepancy.opened": {
    discrepancyId: string;
    registration: string;
    stationId: string;
    itemId?: string;
    text: string;
    grade: FindingGrade;
    measure?: string;
    /** What is behind it, where it was judged and not only seen: by this it is known again the next time. */
    cause?: string;
  };
  "discrepancy.observed": {
    discrepancyId: string;
    itemId: string;
    state: "same" | "grown" | "gone";
    measure?: string;
  };
  /** Logged by a slip: said by the one who logged it, before the walk is signed. It stays on record as withdrawn. */
  "discrepancy.withdrawn": { discrepancyId: string };
  "discrepancy.closed": { discrepancyId: string; how: string };
  interrupted: { itemId?: string; cause?: InterruptionCause; since?: string };
  resumed: { itemId?: string; way?: ReturnWay };
  "verdict.signed": {
    verdict: SignedVerdict;
    decision: "fly" | "not flying";
    reasons: string[];
    /** Who was asked, where the verdict was "ask first" and the pilot flies. */
    askedCrewId?: string;
  };
}

export type EventType = keyof EventData;
const NAMED: Record<EventType, true> = {
  "preflight.started": true,
  "item.answered": true,
  "item.postponed": true,
  "item.visited": true,
  "item.undone": true,
  "reading.taken": true,
  "sample.taken": true,
  "wings.rocked": true,
  "fuel.uplifted": true,
  "fuel.told": true,
  "oil.added": true,
  "blade.pulled": true,
  "run-up.read": true,
  "station.flowed": true,
  "crew.joined": true,
  "crew.left": true,
  "discrepancy.opened": true,
  "discrepancy.observed": true,
  "discrepancy.withdrawn": true,
  "discrepancy.closed": true,
  interrupted: true,
  resumed: true,
  "verdict.signed": true,
};
export const EVENT_TYPES = Object.keys(NAMED) as readonly EventType[];

/**
 * What a stream of events is about. A walk is one preflight; what is done to an aircraft outside of a walk (a release, fuel, oil) is a stream
 * of its own; flights and people have theirs.
 */
export const STREAM_KINDS = ["preflight", "aircraft", "flight", "person"] as const;
export type StreamKind = (typeof STREAM_KINDS)[number];

/** What may be recorded in which kind of stream. Nothing is recorded of flights and people yet. */
export const STREAM_EVENTS: Record<StreamKind, readonly EventType[]> = {
  preflight: EVENT_TYPES,
  aircraft: [
    "fuel.uplifted",
    "oil.added",
    "discrepancy.opened",
    "discrepancy.observed",
    "discrepancy.withdrawn",
    "discrepancy.closed",
    "item.undone",
  ],
  flight: [],
  person: [],
};

export interface EventEnvelope<T extends EventType> {
  /** Time-ordered unique id (UUID version 7): the order of events is the order of their ids. */
  id: string;
  type: T;
  /** What kind of stream it belongs to; absent: a preflight. */
  stream?: StreamKind;
  /** The id of its stream, whatever its kind; a new preflight's is the id of the event that began it. */
  streamId: string;
  deviceId: string;
  crewId: string;
  /** When it was done, ISO 8601 in UTC, by the device's clock. */
  at: string;
  /** What the device's clock said, where it was wrong and `at` was put right afterwards. */
  deviceAt?: string;
  /** Set on what was on record before it was settled who may take back what: it goes on meaning what it meant then. Never sent. */
  rules?: 1;
  data: EventData[T];
}

export type PreflightEvent = { [T in EventType]: EventEnvelope<T> }[EventType];

/** Union of two sets of events: each once, in the order of their ids. Repeats and arrival order do not matter. */
export function mergeEvents(...sets: readonly (readonly PreflightEvent[])[]): PreflightEvent[] {
  const [only] = sets;
  if (sets.length === 1 && only && isInOrder(only)) return [...only];
  const byId = new Map<string, PreflightEvent>();
  for (const events of sets) for (const event of events) if (!byId.has(event.id)) byId.set(event.id, event);
  return [...byId.values()].sort(byEventId);
}

/** As they mostly come: each behind the one before it. */
function isInOrder(events: readonly PreflightEvent[]): boolean {
  let before = "";
  for (const { id } of events) {
    if (id <= before) return false;
    before = id;
  }
  return true;
}

export function byEventId(a: { id: string }, b: { id: string }): number {
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}
