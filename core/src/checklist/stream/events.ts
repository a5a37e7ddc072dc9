import type { Condition } from "../../aircraft/aircraft-type";
import type { Preferences, RETURN_RULES } from "../../aircraft/preferences";
import type { LaunchWay } from "../../airworthiness/airworthiness-snapshot";
import type { LocalDate } from "../../airworthiness/calendar/local-date";
import type { ComponentSnapshot } from "../../airworthiness/component-moves";
import type { AirspaceKind, FlightUse, Purpose } from "../../airworthiness/due/due-item";
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
import type { FlightSubject } from "../../judgement/flight-subjects";
import type { FindingGrade, SignedVerdict } from "../../judgement/judgement";
import type { PlannedLoad } from "../../mass-and-balance/loading-profile";
import type { OilHeat } from "../../oil/judge-oil";
import type { RunUpRead, TraceSource } from "../../run-up/record/run-up-read";
import type { Unit } from "../../units/convert";
import type { WeatherInputs } from "../../weather/weather-inputs";

/**
 * Causes of an interruption: someone spoke, the screen went dark or another app came up, nothing was answered for a long time;
 * after acceptance, the take-off was abandoned.
 */
export const INTERRUPTION_CAUSES = ["spoken to", "screen left", "long gap", "take-off aborted"] as const;
export type InterruptionCause = (typeof INTERRUPTION_CAUSES)[number];
/** How a preflight resumes after an interruption. */
export type ReturnWay = (typeof RETURN_RULES)[number] | "where I was";

/** Data of each event kind. Every action is one of these, appended and never changed. */
export interface EventData {
  "preflight.started": {
    registration: string;
    listHash: string;
    conditions: Condition[];
    plannedFlightMin?: number;
    plannedLandings?: number;
    /** Planned launch method of a glider. */
    plannedLaunch?: LaunchWay;
    /** Planned load: kilograms by station, litres of fuel by tank. Stations, not people. */
    plannedLoad?: PlannedLoad;
    /** Purpose of the flight, which may allow exceeding a due limit. */
    purpose?: Purpose;
    /** What the flight is for, the airspace at both ends, the seats, and whether it is by day and by night; absent: not told. */
    use?: FlightUse;
    airspace?: Partial<Record<AirspaceKind, boolean>>;
    fullSeats?: boolean;
    dayAndNight?: boolean;
    preferences?: Preferences;
    /** Outside air temperature, for the battery capacity at start. */
    celsius?: number;
    /** Report used for planning. */
    weather?: WeatherInputs;
    /** Height above the field below which there is no turning back, ft; set by the pilot. */
    turnBackFt?: number;
  };
  "item.answered": {
    itemId: string;
    outcome: "checked" | "found";
    value?: string;
    /** Missed in the flow from memory and caught by the checklist. */
    caught?: boolean;
    /** Who gave the answer, if one person reads and another answers. */
    byCrewId?: string;
    /** Card on which it was answered together with others. */
    card?: string;
  };
  /** A whole station done from memory; its items are read afterwards. */
  "station.flowed": { stationId: string };
  /** A second person joined: to read and answer in turns, or to hold what the other moves. */
  "crew.joined": { crewId: string };
  "crew.left": { crewId: string };
  "item.postponed": { itemId: string };
  /** Jump to an item out of order. */
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
    /** Source trace of an engine monitor; absent if a person read it. */
    from?: TraceSource;
    card?: string;
  };
  /** One sample from one drain, and what happened to it. */
  "sample.taken": Sample & { itemId: string; fate?: SampleFate; card?: string };
  /** Wings rocked, tail lowered, waited: every drain must be sampled again. */
  "wings.rocked": Record<string, never>;
  /** Fuel added, by receipt or as entered; within a preflight, earlier dips and drains of that fuel no longer count. */
  "fuel.uplifted": {
    registration: string;
    tankId?: string;
    amount: number;
    unit: FuelUnit;
    grade?: string;
    receipt?: string;
    from: "pump" | "typed" | "file";
  };
  /** The pilot's knowledge of today's fuel that no instrument shows. */
  "fuel.told": FuelInputs;
  /** Current load on board: replaces the planned load. */
  "load.told": PlannedLoad;
  /** A weather report, or the runway condition; the last one counts. */
  "weather.told": WeatherInputs;
  /** A briefing as given, word for word, to crew or passengers. */
  "briefing.given": { to: BriefingKind; steps: { title: string; words: string }[] };
  "oil.added": { registration: string; engine?: string; qt: number; grade?: string; sealed: boolean };
  /** One blade pulled through by hand, without resistance. */
  "blade.pulled": { itemId: string; blade: number };
  /** Result of reading a run-up trace; its numbers follow as readings. */
  "run-up.read": RunUpRead & { itemId: string };
  "discrepancy.opened": {
    discrepancyId: string;
    registration: string;
    stationId: string;
    itemId?: string;
    text: string;
    grade: FindingGrade;
    measure?: string;
    /** Cause, if it was judged rather than only seen: identifies the same fault next time. */
    cause?: string;
  };
  "discrepancy.observed": {
    discrepancyId: string;
    itemId: string;
    state: "same" | "grown" | "gone";
    measure?: string;
  };
  /** Withdrawn by the person who logged it by mistake, before the preflight is signed. Stays on record as withdrawn. */
  "discrepancy.withdrawn": { discrepancyId: string };
  /** Signed off by an authorised person: repaired, or inspected without a fault. `release` names the release that contains it. */
  "discrepancy.closed": { discrepancyId: string; how: string; noFault?: true; release?: string };
  /** Deferred under the rules: basis, expiry, kinds of flight, and what was done to warn the next pilot. */
  "discrepancy.deferred": DiscrepancyDeferral & { discrepancyId: string };
  /** Grade changed by an authorised person, with the reason. */
  "discrepancy.regraded": { discrepancyId: string; grade: FindingGrade; why: string };
  /** Advice obtained: from whom, how, and what it was. */
  "discrepancy.asked": { discrepancyId: string; whom: string; by: AskedBy; said: string };
  /** Merged into another discrepancy with the same cause, as evidence. */
  "discrepancy.merged": { discrepancyId: string; into: string };
  /** Limit for its measure, set by an authorised person. */
  "discrepancy.limited": MeasureLimit & { discrepancyId: string };
  /** A photo of it; the image is stored beside the record under its content hash. */
  "discrepancy.photographed": Photograph & { discrepancyId: string };
  /** A flight as an entry of the technical log. */
  "flight.logged": Omit<TechnicalLogEntry, "id">;
  /** A corrected entry, or a removed one if `line` is absent; the original stays on record. */
  "flight.corrected": { registration: string; of: string; line?: Omit<TechnicalLogEntry, "id">; why: string };
  /** Work released to service: what was done, by whom, what it closes, what it leaves open. */
  "work.released": WorkRelease;
  /** A release struck out: nothing it completed or left counts. What replaces it is a release of its own. */
  "release.withdrawn": { registration: string; of: string; why: string };
  "meter.replaced": { registration: string; meter: string; oldReading: number; newReading: number };
  /** Component removed, with the aircraft's totals then. */
  "component.removed": { registration: string; component: string; totals: Totals };
  /** Component fitted, with its times, due items and works. */
  "component.fitted": ComponentSnapshot & { registration: string; position?: string; totals: Totals };
  /** The group's workshop plan; the last one counts. */
  "workshop.planned": WorkshopPlan;
  /** A due item of a person; replaces the one with the same id. */
  "person.due-set": { personId: string; item: PersonDue };
  "person.due-dropped": { personId: string; item: string };
  /** Completed, passed or renewed. */
  "person.done": { personId: string; work: PersonWork };
  /** Daily inspection, signed before the first start of its day. */
  "daily.signed": { registration: string; date: LocalDate };
  /** A document, database or printed date renewed without work: insurance, registration, navigation data. */
  "document.renewed": {
    registration: string;
    item: string;
    /** Day on which it was renewed. */
    date: LocalDate;
    /** New printed date, and where it is printed. */
    until: LocalDate;
    source?: string;
  };
  /** The pilot goes without these assessments, knowingly, and says why. */
  "assessment.waived": { subjects: FlightSubject[]; why: string };
  interrupted: { itemId?: string; cause?: InterruptionCause; since?: string };
  resumed: { itemId?: string; way?: ReturnWay };
  "verdict.signed": {
    verdict: SignedVerdict;
    decision: "fly" | "not flying";
    reasons: string[];
    /** Who was asked, if the verdict was "ask first" and the pilot flies. */
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
  "release.withdrawn": true,
  "meter.replaced": true,
  "component.removed": true,
  "component.fitted": true,
  "workshop.planned": true,
  "person.due-set": true,
  "person.due-dropped": true,
  "person.done": true,
  "daily.signed": true,
  "document.renewed": true,
  "assessment.waived": true,
  interrupted: true,
  resumed: true,
  "verdict.signed": true,
};
export const EVENT_TYPES = Object.keys(NAMED) as readonly EventType[];

/**
 * Subject of a stream. Each preflight is a stream; releases, fuel and oil outside a preflight belong to a stream of the aircraft;
 * flights, people and the workshop plan have their own.
 */
export const STREAM_KINDS = ["preflight", "aircraft", "flight", "person", "workshop"] as const;
export type StreamKind = (typeof STREAM_KINDS)[number];

/** Events of an aircraft and its discrepancies outside a preflight. */
const OF_AIRCRAFT: readonly EventType[] = [
  "discrepancy.deferred",
  "discrepancy.regraded",
  "discrepancy.asked",
  "discrepancy.merged",
  "discrepancy.limited",
  "work.released",
  "release.withdrawn",
  "meter.replaced",
  "component.removed",
  "component.fitted",
  "daily.signed",
  "document.renewed",
];
const OF_FLIGHT: readonly EventType[] = ["flight.logged", "flight.corrected"];
const OF_PERSON: readonly EventType[] = ["person.due-set", "person.due-dropped", "person.done"];
const OF_WORKSHOP: readonly EventType[] = ["workshop.planned"];
const NO_PREFLIGHT = new Set([...OF_AIRCRAFT, ...OF_FLIGHT, ...OF_PERSON, ...OF_WORKSHOP]);

/** Event kinds allowed in each kind of stream. */
export const STREAM_EVENTS: Record<StreamKind, readonly EventType[]> = {
  preflight: EVENT_TYPES.filter((type) => !NO_PREFLIGHT.has(type)),
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
  /** Time-ordered unique id (UUID version 7). It identifies the event; its order follows from `recordOrder`. */
  id: string;
  type: T;
  /** Kind of its stream; absent: preflight. */
  stream?: StreamKind;
  /** Id of its stream; for a new preflight, the id of its first event. */
  streamId: string;
  deviceId: string;
  crewId: string;
  /** Time of the action, ISO 8601 in UTC, by the device clock. */
  at: string;
  /** Original device time, if the clock was wrong and `at` was corrected. */
  deviceAt?: string;
  /** Marks events recorded before the undo rules existed; they keep their original meaning. Never sent. */
  rules?: 1;
  data: EventData[T];
}

export type PreflightEvent = { [T in EventType]: EventEnvelope<T> }[EventType];

/** Union of event sets: each event once, in record order. Repeats and arrival order do not matter. */
export function mergeEvents(...sets: readonly (readonly PreflightEvent[])[]): PreflightEvent[] {
  const [only] = sets;
  if (sets.length === 1 && only && isInOrder(only)) return [...only];
  const byId = new Map<string, PreflightEvent>();
  for (const events of sets) for (const event of events) if (!byId.has(event.id)) byId.set(event.id, event);
  return recordOrder([...byId.values()]);
}

/** True in the usual case: each event has a greater id and no earlier time than the previous one. */
function isInOrder(events: readonly Ordered[]): boolean {
  let id = "";
  let at = "";
  for (const event of events) {
    if (event.id <= id || event.at < at) return false;
    ({ id, at } = event);
  }
  return true;
}

/** What the order of an event depends on. */
export type Ordered = Pick<EventEnvelope<EventType>, "id" | "at" | "deviceAt" | "deviceId" | "streamId">;

/**
 * Events in the order in which they happened: by their time, events of the same moment by id. An id alone decides nothing, because
 * a device whose clock is fast gives out ids of the future. Within a stream, the events of one device keep the order in which it
 * made them (its ids ascend), even if its clock was set back in between; an event with a corrected time goes by that time.
 * The input is not modified. Complexity: O(n log n).
 */
export function recordOrder<E extends Ordered>(events: readonly E[]): E[] {
  if (isInOrder(events)) return [...events];
  const byId = [...events].sort(byEventId);
  const times = new Map<string, string>();
  const next = new Map<string, string>();
  for (const event of byId.reverse()) {
    const { id, at, deviceAt } = event;
    if (deviceAt !== undefined) {
      times.set(id, at);
      continue;
    }
    const device = `${event.deviceId} ${event.streamId}`;
    const after = next.get(device);
    const time = after !== undefined && after < at ? after : at;
    next.set(device, time);
    times.set(id, time);
  }
  const timeOf = ({ id, at }: E) => times.get(id) ?? at;
  return byId.sort((a, b) => compare(timeOf(a), timeOf(b)) || byEventId(a, b));
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** Order of independent events, such as the plans or due items of a group: by time, then by id. */
export function byTime(a: Pick<Ordered, "id" | "at">, b: Pick<Ordered, "id" | "at">): number {
  return compare(a.at, b.at) || compare(a.id, b.id);
}

export function byEventId(a: { id: string }, b: { id: string }): number {
  return compare(a.id, b.id);
}
