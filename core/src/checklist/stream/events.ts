import type { Condition } from "../../aircraft/aircraft-type";
import type { Preferences, RETURN_RULES } from "../../aircraft/preferences";
import type { LaunchWay } from "../../airworthiness/airworthiness-snapshot";
import type { LocalDate } from "../../airworthiness/calendar/local-date";
import type { ComponentSnapshot } from "../../airworthiness/component-moves";
import type { Purpose } from "../../airworthiness/due/due-item";
import type { TechnicalLogEntry } from "../../airworthiness/flights/technical-log-entry";
import type { AskedBy, DiscrepancyDeferral } from "../../airworthiness/life/deferral";
import type { MeasureLimit } from "../../airworthiness/life/measure-trend";
import type { Photograph } from "../../airworthiness/life/photograph";
import type { WorkRelease } from "../../airworthiness/life/release";
import type { Totals } from "../../airworthiness/meters/component";
import type { PersonDue, PersonWork } from "../../airworthiness/people/person-due";
import type { WorkshopPlan } from "../../airworthiness/plan/workshop-plan";
import type { BriefingKind } from "../../departure/briefing-kinds";
import type { EngineFeel } from "../../engine/classify-drop";
import type { Sample } from "../../fuel/drain/fuel-sample";
import type { FuelInputs, SampleFate } from "../../fuel/fuel-inputs";
import type { FuelUnit } from "../../fuel/grade/fuel-amount";
import type { FindingGrade, SignedVerdict } from "../../judgement/judgement";
import type { PlannedLoad } from "../../mass-and-balance/loading-profile";
import type { OilHeat } from "../../oil/judge-oil";
import type { RunUpRead, TraceSource } from "../../run-up/record/run-up-read";
import type { Unit } from "../../units/convert";
import type { WeatherInputs } from "../../weather/weather-inputs";

/** What broke into the walk: somebody spoke, the screen went dark or another program came up, or nothing was answered for long; after the acceptance, the take-off was given up. */
export const INTERRUPTION_CAUSES = ["spoken to", "screen left", "long gap", "take-off aborted"] as const;
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
    plannedLandings?: number;
    /** How a glider is to be launched. */
    plannedLaunch?: LaunchWay;
    /** Who and what is loaded, kilograms by place; and the fuel that was planned, litres by tank. Places, no people. */
    plannedLoad?: PlannedLoad;
    /** What the flight is for, where it may pass a limit of its papers. */
    purpose?: Purpose;
    preferences?: Preferences;
    /** Outside air, for what the start takes from the battery. */
    celsius?: number;
    /** The report that it was planned with. */
    weather?: WeatherInputs;
    /** Below this height above the field nobody turns back, ft; set by whoever flies. */
    turnBackFt?: number;
  };
  "item.answered": {
    itemId: string;
    outcome: "checked" | "found";
    value?: string;
    /** Missed in the flow from memory, and done when the list was read. */
    caught?: boolean;
    /** Who gave the answer, where one reads and another answers. */
    byCrewId?: string;
    /** The card that it was answered on together with others, in one go. */
    card?: string;
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
    card?: string;
  };
  /** One cup from one drain, and what became of it. */
  "sample.taken": Sample & { itemId: string; fate?: SampleFate; card?: string };
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
  "fuel.told": FuelInputs;
  /** What is aboard, as it is now: it takes the place of what was planned. */
  "load.told": PlannedLoad;
  /** A report of the weather, or what the ground is like; the last one counts. */
  "weather.told": WeatherInputs;
  /** A briefing as it was given, word by word, to the crew or to passengers. */
  "briefing.given": { to: BriefingKind; steps: { title: string; words: string }[] };
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
  /** Signed off by who may: mended, or looked at and nothing found. `release` names the release that it stands in. */
  "discrepancy.closed": { discrepancyId: string; how: string; noFault?: true; release?: string };
  /** Lawfully put off: on what basis, until when, for which flights, and what was done so that nobody is taken in. */
  "discrepancy.deferred": DiscrepancyDeferral & { discrepancyId: string };
  /** Its grade changed by who may, with the reason. */
  "discrepancy.regraded": { discrepancyId: string; grade: FindingGrade; why: string };
  /** Somebody was asked about it: who, how, and what was said. */
  "discrepancy.asked": { discrepancyId: string; whom: string; by: AskedBy; said: string };
  /** The same trouble as another one: from now on it is evidence of that. */
  "discrepancy.merged": { discrepancyId: string; into: string };
  /** What may be measured of it at most, set by who may. */
  "discrepancy.limited": MeasureLimit & { discrepancyId: string };
  /** A photograph of it; the picture is kept beside the record, under its content hash. */
  "discrepancy.photographed": Photograph & { discrepancyId: string };
  /** One flight as a line of the technical log. */
  "flight.logged": Omit<TechnicalLogEntry, "id">;
  /** A line as it should have been, or struck out where `line` is absent; the one before stays on record. */
  "flight.corrected": { registration: string; of: string; line?: Omit<TechnicalLogEntry, "id">; why: string };
  /** Work released to service: what was done, by whom it may be, what it closes, what it leaves. */
  "work.released": WorkRelease;
  "meter.replaced": { registration: string; meter: string; oldReading: number; newReading: number };
  /** A component came off: the aircraft's totals then. */
  "component.removed": { registration: string; component: string; totals: Totals };
  /** A component was fitted, with its times, what is due on it and what was done to it. */
  "component.fitted": ComponentSnapshot & { registration: string; position?: string; totals: Totals };
  /** The group's plan for the workshop, as somebody has put it; the last one counts. */
  "workshop.planned": WorkshopPlan;
  /** Something that is due of a person; under the same id it takes the place of what was there. */
  "person.due-set": { personId: string; item: PersonDue };
  "person.due-dropped": { personId: string; item: string };
  /** It was done, passed, renewed. */
  "person.done": { personId: string; work: PersonWork };
  /** The daily inspection, signed before the first start of the day it is valid for. */
  "daily.signed": { registration: string; date: LocalDate };
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
  "load.told": true,
  "weather.told": true,
  "briefing.given": true,
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
  "discrepancy.deferred": true,
  "discrepancy.regraded": true,
  "discrepancy.asked": true,
  "discrepancy.merged": true,
  "discrepancy.limited": true,
  "discrepancy.photographed": true,
  "flight.logged": true,
  "flight.corrected": true,
  "work.released": true,
  "meter.replaced": true,
  "component.removed": true,
  "component.fitted": true,
  "workshop.planned": true,
  "person.due-set": true,
  "person.due-dropped": true,
  "person.done": true,
  "daily.signed": true,
  interrupted: true,
  resumed: true,
  "verdict.signed": true,
};
export const EVENT_TYPES = Object.keys(NAMED) as readonly EventType[];

/**
 * What a stream of events is about. A walk is one preflight; what is done to an aircraft outside of a walk (a release, fuel, oil) is a stream
 * of its own; flights, people and the workshop's plan have theirs.
 */
export const STREAM_KINDS = ["preflight", "aircraft", "flight", "person", "workshop"] as const;
export type StreamKind = (typeof STREAM_KINDS)[number];

/** What is done to an aircraft and said of its discrepancies outside of a walk. */
const OF_AIRCRAFT: readonly EventType[] = [
  "discrepancy.deferred",
  "discrepancy.regraded",
  "discrepancy.asked",
  "discrepancy.merged",
  "discrepancy.limited",
  "work.released",
  "meter.replaced",
  "component.removed",
  "component.fitted",
  "daily.signed",
];
const OF_FLIGHT: readonly EventType[] = ["flight.logged", "flight.corrected"];
const OF_PERSON: readonly EventType[] = ["person.due-set", "person.due-dropped", "person.done"];
const OF_WORKSHOP: readonly EventType[] = ["workshop.planned"];
const NO_WALK = new Set([...OF_AIRCRAFT, ...OF_FLIGHT, ...OF_PERSON, ...OF_WORKSHOP]);

/** What may be recorded in which kind of stream. */
export const STREAM_EVENTS: Record<StreamKind, readonly EventType[]> = {
  preflight: EVENT_TYPES.filter((type) => !NO_WALK.has(type)),
  aircraft: [
    "fuel.uplifted",
    "oil.added",
    "discrepancy.opened",
    "discrepancy.observed",
    "discrepancy.withdrawn",
    "discrepancy.closed",
    "discrepancy.photographed",
    "item.undone",
    ...OF_AIRCRAFT,
  ],
  flight: OF_FLIGHT,
  person: OF_PERSON,
  workshop: OF_WORKSHOP,
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
