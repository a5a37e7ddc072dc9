import type { Condition } from "../../aircraft/aircraft-type";
import type { Preferences } from "../../aircraft/preferences";
import type { EngineFeel } from "../../engine/classify-drop";
import type { FuelTold } from "../../fuel/fuel-told";
import type { OilHeat } from "../../oil/judge-oil";
import { ONLY_ENGINE, READING, readingKey, tankOfKey } from "../../readings/reading-keys";
import type { RunUpRead, TraceSource } from "../../run-up/record/run-up-read";
import type { Unit } from "../../units/convert";
import { copyDictionary, type Dictionary, emptyDictionary } from "./dictionary";
import {
  type EventData,
  type EventType,
  type InterruptionCause,
  mergeEvents,
  type PreflightEvent,
  type ReturnWay,
} from "./events";
import type { FuelSampleTaken, OilAdded, UpliftSeen } from "./fluid-events";
import { authorsOf, readStream, type StreamReading } from "./read-stream";

export interface Answer {
  eventId: string;
  at: string;
  outcome: "checked" | "found" | "same" | "grown" | "gone";
  value?: string;
  caught?: boolean;
  byCrewId?: string;
}

/** A station that was done from memory. */
export interface Flow {
  eventId: string;
  at: string;
  /** Since the last thing that was done before it. */
  seconds: number;
}

export interface Interruption {
  at: string;
  /** Since when nothing was done, where that was noticed only afterwards. */
  since?: string;
  cause?: InterruptionCause;
  itemId?: string;
  resumedAt?: string;
  way?: ReturnWay;
}

export interface Reading {
  eventId: string;
  itemId: string;
  at: string;
  value: number;
  unit: Unit;
  /** Who read it: not always who began the walk. */
  crewId: string;
  feel?: EngineFeel;
  heat?: OilHeat;
  /** Out of a trace; without it a person read it. */
  from?: TraceSource;
}

/** An act that can be taken back: which event, whose, and the discrepancy that it logged, if any. */
export interface Undoable {
  eventId: string;
  crewIds: readonly string[];
  discrepancyId?: string;
}

export type Signature = EventData["verdict.signed"] & { at: string; crewId: string };

export type OpenedDiscrepancy = EventData["discrepancy.opened"] & { eventId: string; at: string };
export type ObservedDiscrepancy = EventData["discrepancy.observed"] & { eventId: string; at: string };

/** What a preflight amounts to: nothing here that is not in its events. */
export interface PreflightState {
  id: string;
  /** Absent while the opening event has not arrived yet. */
  registration?: string;
  listHash?: string;
  crewId?: string;
  startedAt?: string;
  plannedFlightMin?: number;
  preferences?: Preferences;
  celsius?: number;
  /** Who is here besides the one who began. */
  joined: string[];
  /** Stations done from memory. */
  flowed: Dictionary<Flow>;
  conditions: Condition[];
  answers: Dictionary<Answer>;
  readings: Dictionary<Reading>;
  /** Cups by their item, newest last: since the last refuelling, and among them those from before the wings were rocked. */
  samples: Dictionary<FuelSampleTaken[]>;
  rocked?: { eventId: string; at: string };
  /** Cups from before a refuelling: what they showed stays on record. */
  earlierSamples: FuelSampleTaken[];
  told: FuelTold;
  uplifts: UpliftSeen[];
  oilAdded: OilAdded[];
  /** What the traces of this walk's run-ups amounted to, by engine; the last one of each. */
  runUps: Dictionary<RunUpRead & { eventId: string; at: string; itemId: string }>;
  /** Blades pulled through so far, by item. */
  blades: Dictionary<number>;
  postponed: string[];
  discrepancies: OpenedDiscrepancy[];
  observations: ObservedDiscrepancy[];
  interruptions: Interruption[];
  /** The last item that was touched: the walk goes on behind it. */
  cursor?: { itemId: string; visiting: boolean };
  /** Answers in the order they were given, newest last: what undo takes back. None from before the signature. */
  undoable: Undoable[];
  /** The signature of its own pilot. */
  signed?: Signature;
  /** What was signed afterwards, or by another: it stands beside the signature and changes nothing in it. */
  amendments: Signature[];
  lastAt?: string;
}

/**
 * Folds the events of one preflight to its state. Pure: the same set of events gives the same state whatever their order or
 * repetition; an undone answer leaves the state as if it had never been given. Who may take back what: see `readStream`.
 * Complexity: O(n log n) for the order, then one pass.
 */
export function foldPreflight(preflightId: string, events: readonly PreflightEvent[]): PreflightState {
  const own = ofStream(preflightId, mergeEvents(events));
  return foldRead(preflightId, own, readStream(own));
}

function foldRead(
  preflightId: string,
  events: readonly PreflightEvent[],
  reading: StreamReading,
): PreflightState {
  const state = emptyState(preflightId);
  const { takenBack, withdrawn } = reading;
  for (const event of events)
    if (!takenBack.has(event.id) && !withdrawn.has(event.id)) apply(state, event, reading);
  return state;
}

function ofStream(preflightId: string, events: readonly PreflightEvent[]): readonly PreflightEvent[] {
  return events.every((event) => event.streamId === preflightId)
    ? events
    : events.filter((event) => event.streamId === preflightId);
}

/** A fold together with the events that it is made of. */
export interface FoldedPreflight {
  events: readonly PreflightEvent[];
  state: PreflightState;
  reading: StreamReading;
  /** The events that somebody meant to take back, whether they have come yet or not. */
  named: ReadonlySet<string>;
  /** The greatest id among them: they need not have come in order. */
  newest: string;
}

/**
 * The same as folding all the events, made from an earlier fold of the first of them: what a person just did costs the one event, not the
 * whole walk. Where that cannot be (an undo, an event that sorts before the last one, another beginning) everything is folded anew.
 * The earlier fold is left as it was. Complexity: O(answers) for events that only go on, O(n log n) otherwise.
 */
export function foldMore(
  previous: FoldedPreflight | undefined,
  preflightId: string,
  events: readonly PreflightEvent[],
): FoldedPreflight {
  const more = previous && previous.state.id === preflightId && goesOn(previous, events);
  if (!previous || !more) {
    const own = ofStream(preflightId, mergeEvents(events));
    const reading = readStream(own);
    return {
      events,
      state: foldRead(preflightId, own, reading),
      reading,
      named: namedBy(own),
      newest: own.at(-1)?.id ?? "",
    };
  }
  const state = copyFor(previous.state, more);
  for (const event of more) if (event.streamId === preflightId) apply(state, event, previous.reading);
  return { ...previous, events, state, newest: more.at(-1)?.id ?? previous.newest };
}

function namedBy(events: readonly PreflightEvent[]): ReadonlySet<string> {
  const named = new Set<string>();
  for (const event of events)
    if (event.type === "item.undone") named.add(event.data.eventId);
    else if (event.type === "discrepancy.withdrawn") named.add(event.data.discrepancyId);
  return named;
}

const CHANGES_THE_READING: readonly PreflightEvent["type"][] = [
  "preflight.started",
  "item.undone",
  "discrepancy.withdrawn",
  "verdict.signed",
];

/** The parts of a state that are changed where they stand; all others are replaced when they change. */
type Part =
  | "answers"
  | "readings"
  | "samples"
  | "runUps"
  | "blades"
  | "flowed"
  | "joined"
  | "postponed"
  | "discrepancies"
  | "interruptions"
  | "undoable";

const ANSWERS = ["answers", "undoable"] as const satisfies readonly Part[];

/** What each kind of event changes where it stands. All kinds are named: one that is added and forgotten does not compile. */
const CHANGES: Record<EventType, readonly Part[]> = {
  "preflight.started": [],
  "item.answered": ANSWERS,
  "station.flowed": ["flowed", "undoable"],
  "crew.joined": ["joined"],
  "crew.left": [],
  "item.postponed": ["postponed", "undoable"],
  "item.visited": [],
  "item.undone": [],
  "reading.taken": [...ANSWERS, "readings"],
  "sample.taken": [...ANSWERS, "samples"],
  "wings.rocked": ANSWERS,
  "fuel.uplifted": [...ANSWERS, "readings"],
  "fuel.told": [],
  "oil.added": [...ANSWERS, "readings"],
  "run-up.read": ["runUps", "readings"],
  "blade.pulled": ["blades", "undoable"],
  "discrepancy.opened": [...ANSWERS, "discrepancies"],
  "discrepancy.observed": ANSWERS,
  "discrepancy.withdrawn": [],
  "discrepancy.closed": [],
  interrupted: ["interruptions"],
  resumed: ["interruptions"],
  "verdict.signed": [],
};

/** A copy to go on with: what these events change is copied, all else is shared with the earlier state. */
function copyFor(before: PreflightState, more: readonly PreflightEvent[]): PreflightState {
  const state = { ...before };
  for (const part of new Set(more.flatMap((event) => CHANGES[event.type]))) COPY[part](state, before);
  return state;
}

const dictionary =
  (part: "answers" | "readings" | "samples" | "runUps" | "blades" | "flowed") =>
  (state: PreflightState, before: PreflightState) => {
    // Each part is copied onto its own name.
    (state[part] as Dictionary<unknown>) = copyDictionary(before[part] as Dictionary<unknown>);
  };

const COPY: Record<Part, (state: PreflightState, before: PreflightState) => void> = {
  answers: dictionary("answers"),
  readings: dictionary("readings"),
  samples: dictionary("samples"),
  runUps: dictionary("runUps"),
  blades: dictionary("blades"),
  flowed: dictionary("flowed"),
  joined: (state, { joined }) => {
    state.joined = [...joined];
  },
  postponed: (state, { postponed }) => {
    state.postponed = [...postponed];
  },
  discrepancies: (state, { discrepancies }) => {
    state.discrepancies = [...discrepancies];
  },
  interruptions: (state, { interruptions }) => {
    state.interruptions = interruptions.map((interruption) => ({ ...interruption }));
  },
  undoable: (state, { undoable }) => {
    state.undoable = [...undoable];
  },
};

/** The events behind the earlier ones, where they only go on from them. */
function goesOn(
  { events: before, named, newest }: FoldedPreflight,
  now: readonly PreflightEvent[],
): PreflightEvent[] | undefined {
  const last = before.at(-1);
  if (!last || now.length < before.length || now[before.length - 1] !== last || now[0] !== before[0])
    return undefined;
  const more = now.slice(before.length);
  let id = newest;
  for (const event of more) {
    // An undo may have come before what it takes back; and a beginning or a signature changes who may take back what.
    if (event.id <= id || CHANGES_THE_READING.includes(event.type) || named.has(event.id)) return undefined;
    if (event.type === "discrepancy.opened" && named.has(event.data.discrepancyId)) return undefined;
    id = event.id;
  }
  return more;
}

function emptyState(id: string): PreflightState {
  return {
    id,
    conditions: [],
    joined: [],
    flowed: emptyDictionary(),
    answers: emptyDictionary(),
    readings: emptyDictionary(),
    samples: emptyDictionary(),
    earlierSamples: [],
    told: {},
    uplifts: [],
    oilAdded: [],
    runUps: emptyDictionary(),
    blades: emptyDictionary(),
    postponed: [],
    discrepancies: [],
    observations: [],
    interruptions: [],
    undoable: [],
    amendments: [],
  };
}

function apply(state: PreflightState, event: PreflightEvent, { startId, signatureId }: StreamReading): void {
  const { id: eventId, at } = event;
  const before = state.lastAt;
  const canBeUndone = (discrepancyId?: string) =>
    state.undoable.push({ eventId, crewIds: authorsOf(event), ...(discrepancyId && { discrepancyId }) });
  const answer = (itemId: string, outcome: Answer["outcome"], value?: string, more: Partial<Answer> = {}) => {
    state.answers[itemId] = { eventId, at, outcome, ...(value !== undefined && { value }), ...more };
    if (state.postponed.includes(itemId))
      state.postponed = state.postponed.filter((postponed) => postponed !== itemId);
    state.cursor = { itemId, visiting: false };
    canBeUndone(event.type === "discrepancy.opened" ? event.data.discrepancyId : undefined);
  };
  if (event.type !== "item.undone" && event.type !== "discrepancy.withdrawn") state.lastAt = at;
  switch (event.type) {
    case "preflight.started":
      // One counts: a second start of the same preflight changes nothing.
      if (eventId !== startId) return;
      state.registration = event.data.registration;
      state.listHash = event.data.listHash;
      state.conditions = event.data.conditions;
      if (event.data.plannedFlightMin !== undefined) state.plannedFlightMin = event.data.plannedFlightMin;
      if (event.data.preferences) state.preferences = event.data.preferences;
      if (event.data.celsius !== undefined) state.celsius = event.data.celsius;
      state.crewId = event.crewId;
      state.startedAt = at;
      return;
    case "item.answered": {
      const { itemId, outcome, value, caught, byCrewId } = event.data;
      answer(itemId, outcome, value, { ...(caught && { caught }), ...(byCrewId && { byCrewId }) });
      return;
    }
    case "station.flowed":
      state.flowed[event.data.stationId] = {
        eventId,
        at,
        seconds: Math.max(0, before ? (Date.parse(at) - Date.parse(before)) / 1000 : 0),
      };
      canBeUndone();
      return;
    case "crew.joined":
      if (!state.joined.includes(event.data.crewId)) state.joined.push(event.data.crewId);
      return;
    case "crew.left":
      state.joined = state.joined.filter((crewId) => crewId !== event.data.crewId);
      return;
    case "reading.taken": {
      const { itemId, key, value, unit, feel, heat, from } = event.data;
      answer(itemId, "checked", String(value));
      state.readings[key] = {
        eventId,
        itemId,
        at,
        value,
        unit,
        crewId: event.crewId,
        ...(feel && { feel }),
        ...(heat && { heat }),
        ...(from && { from }),
      };
      return;
    }
    case "sample.taken": {
      const { itemId, ...sample } = event.data;
      state.samples[itemId] = [...(state.samples[itemId] ?? []), { ...sample, itemId, eventId, at }];
      if (sample.look === "clean") {
        answer(itemId, "checked", "clean");
        return;
      }
      // Not clean is no answer: the drain is still open.
      delete state.answers[itemId];
      state.cursor = { itemId, visiting: true };
      canBeUndone();
      return;
    }
    case "wings.rocked": {
      state.rocked = { eventId, at };
      const drains = Object.keys(state.samples);
      for (const itemId of drains) delete state.answers[itemId];
      if (drains[0]) state.cursor = { itemId: drains[0], visiting: true };
      canBeUndone();
      return;
    }
    case "fuel.uplifted": {
      const { tankId } = event.data;
      const before: UpliftSeen["before"] = {};
      // What is asked again, in the order in which it was answered: the walk goes back to the first of it, before anybody boards.
      const again: { itemId: string; eventId: string }[] = [];
      const reopen = (itemId: string) => {
        const answered = state.answers[itemId];
        if (answered) again.push({ itemId, eventId: answered.eventId });
        delete state.answers[itemId];
      };
      for (const [key, reading] of Object.entries(state.readings)) {
        const looked = tankOfKey(key);
        if (!looked || (tankId !== undefined && looked.tankId !== tankId)) continue;
        before[key] = { value: reading.value, unit: reading.unit };
        delete state.readings[key];
        // The gauge was read with the master on, before: it is asked no more, and counts no more.
        if (looked.by !== "gauge") reopen(reading.itemId);
      }
      state.uplifts = [...state.uplifts, { ...event.data, eventId, at, before }];
      // Whatever was drained was drained before this fuel came.
      for (const [itemId, taken] of Object.entries(state.samples)) {
        state.earlierSamples = [...state.earlierSamples, ...taken];
        reopen(itemId);
      }
      const [first] = again.sort((a, b) => (a.eventId < b.eventId ? -1 : 1));
      if (first) state.cursor = { itemId: first.itemId, visiting: true };
      state.samples = emptyDictionary();
      delete state.rocked;
      canBeUndone();
      return;
    }
    case "fuel.told":
      state.told = { ...state.told, ...event.data };
      return;
    case "oil.added": {
      const key = readingKey(READING.oilLevel, event.data.engine);
      const reading = state.readings[key];
      state.oilAdded = [
        ...state.oilAdded,
        {
          ...event.data,
          eventId,
          at,
          ...(reading && { before: { value: reading.value, unit: reading.unit } }),
        },
      ];
      if (reading) {
        // The level is another one now: wait, wipe, read again.
        delete state.readings[key];
        delete state.answers[reading.itemId];
        state.cursor = { itemId: reading.itemId, visiting: true };
      }
      canBeUndone();
      return;
    }
    case "run-up.read": {
      const { engine, densityAltitudeFt, itemId } = event.data;
      state.runUps[engine ?? ONLY_ENGINE] = { ...event.data, eventId, at };
      if (densityAltitudeFt !== undefined)
        state.readings[READING.densityAltitude] = {
          eventId,
          itemId,
          at,
          value: densityAltitudeFt,
          unit: "ft",
          crewId: event.crewId,
        };
      return;
    }
    case "blade.pulled":
      state.blades[event.data.itemId] = event.data.blade;
      state.cursor = { itemId: event.data.itemId, visiting: true };
      canBeUndone();
      return;
    case "item.postponed":
      if (!state.postponed.includes(event.data.itemId)) state.postponed.push(event.data.itemId);
      state.cursor = { itemId: event.data.itemId, visiting: false };
      canBeUndone();
      return;
    case "item.visited":
      state.cursor = { itemId: event.data.itemId, visiting: true };
      return;
    case "discrepancy.opened":
      state.discrepancies.push({ ...event.data, eventId, at });
      if (event.data.itemId) answer(event.data.itemId, "found");
      else canBeUndone(event.data.discrepancyId);
      return;
    case "discrepancy.observed":
      state.observations = state.observations.filter((o) => o.discrepancyId !== event.data.discrepancyId);
      state.observations.push({ ...event.data, eventId, at });
      answer(event.data.itemId, event.data.state, event.data.measure);
      return;
    case "interrupted": {
      const { itemId, cause, since } = event.data;
      state.interruptions.push({
        at,
        ...(itemId && { itemId }),
        ...(cause && { cause }),
        ...(since && { since }),
      });
      return;
    }
    case "resumed": {
      const open = state.interruptions.findLast((i) => i.resumedAt === undefined);
      if (open) {
        open.resumedAt = at;
        if (event.data.way) open.way = event.data.way;
      }
      return;
    }
    case "verdict.signed":
      if (eventId !== signatureId) {
        state.amendments = [...state.amendments, { ...event.data, at, crewId: event.crewId }];
        return;
      }
      state.signed = { ...event.data, at, crewId: event.crewId };
      // What is signed for is not taken back afterwards.
      state.undoable = [];
      return;
    case "item.undone":
    case "discrepancy.withdrawn":
    case "discrepancy.closed":
      return;
  }
}

/**
 * How the last act of a walk is taken back by this person: an undo, or, where something was found, its withdrawal. Undefined where there is
 * nothing that this person may take back: an act is taken back by who did it or by the walk's pilot, a finding by who logged it.
 */
export function takeBack(
  { undoable, crewId: pilot }: Pick<PreflightState, "undoable" | "crewId">,
  crewId: string | null,
):
  | { type: "item.undone"; data: EventData["item.undone"] }
  | { type: "discrepancy.withdrawn"; data: EventData["discrepancy.withdrawn"] }
  | undefined {
  const last = undoable.at(-1);
  if (!last || crewId === null) return undefined;
  if (last.discrepancyId !== undefined)
    return last.crewIds[0] === crewId
      ? { type: "discrepancy.withdrawn", data: { discrepancyId: last.discrepancyId } }
      : undefined;
  return crewId === pilot || last.crewIds.includes(crewId)
    ? { type: "item.undone", data: { eventId: last.eventId } }
    : undefined;
}
