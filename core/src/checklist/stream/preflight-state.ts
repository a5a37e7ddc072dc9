import type { Condition } from "../../aircraft/aircraft-type";
import type { Preferences } from "../../aircraft/preferences";
import type { LaunchWay, ToldFlight } from "../../airworthiness/airworthiness-snapshot";
import type { Purpose } from "../../airworthiness/due/due-item";
import type { EngineFeel } from "../../engine/classify-drop";
import type { FuelInputs } from "../../fuel/fuel-inputs";
import type { FlightSubject } from "../../judgement/flight-subjects";
import type { PlannedLoad } from "../../mass-and-balance/loading-profile";
import type { OilHeat } from "../../oil/judge-oil";
import type { RunUpRead, TraceSource } from "../../run-up/record/run-up-read";
import type { Unit } from "../../units/convert";
import type { WeatherInputs } from "../../weather/weather-inputs";
import { type Dictionary, emptyDictionary } from "./dictionary";
import type { EventData, InterruptionCause, ReturnWay } from "./events";
import type { FuelSampleTaken, OilAdded, UpliftSeen } from "./fluid-events";

export interface Answer {
  eventId: string;
  at: string;
  outcome: "checked" | "found" | "same" | "grown" | "gone";
  value?: string;
  caught?: boolean;
  byCrewId?: string;
  /** Card on which it was answered, together with others. */
  card?: string;
}

/** A station done from memory. */
export interface Flow {
  eventId: string;
  at: string;
  /** Seconds since the previous action. */
  seconds: number;
}

export interface Interruption {
  at: string;
  /** Start of the inactivity, if noticed only afterwards. */
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
  /** Who read it, not always the person who started the preflight. */
  crewId: string;
  feel?: EngineFeel;
  heat?: OilHeat;
  /** Source trace; absent if a person read it. */
  from?: TraceSource;
}

/** An action that can be undone: its event, who did it, and the discrepancy it logged, if any. */
export interface Undoable {
  eventId: string;
  crewIds: readonly string[];
  discrepancyId?: string;
  /** Undone together with everything else answered on this card at this time. */
  card?: string;
}

export type Signature = EventData["verdict.signed"] & { at: string; crewId: string };

export type OpenedDiscrepancy = EventData["discrepancy.opened"] & { eventId: string; at: string };
export type ObservedDiscrepancy = EventData["discrepancy.observed"] & { eventId: string; at: string };

/** State of a preflight, derived entirely from its events. */
export interface PreflightState {
  id: string;
  /** Absent until the opening event has arrived. */
  registration?: string;
  listHash?: string;
  crewId?: string;
  startedAt?: string;
  plannedFlightMin?: number;
  plannedLandings?: number;
  plannedLaunch?: LaunchWay;
  plannedLoad?: PlannedLoad;
  /** Purpose of the flight, which may allow exceeding a due limit. */
  purpose?: Purpose;
  /** What the pilot has told about the flight besides its conditions. */
  flight?: ToldFlight;
  preferences?: Preferences;
  celsius?: number;
  /** Others who joined. */
  joined: string[];
  /** Stations done from memory. */
  flowed: Dictionary<Flow>;
  conditions: Condition[];
  answers: Dictionary<Answer>;
  readings: Dictionary<Reading>;
  /** Samples by item, newest last, since the last refuelling, including those before the wings were rocked. */
  samples: Dictionary<FuelSampleTaken[]>;
  rocked?: { eventId: string; at: string };
  /** Samples from before a refuelling; kept on record. */
  earlierSamples: FuelSampleTaken[];
  told: FuelInputs;
  uplifts: UpliftSeen[];
  oilAdded: OilAdded[];
  /** Latest run-up trace result of each engine. */
  runUps: Dictionary<RunUpRead & { eventId: string; at: string; itemId: string }>;
  /** Blades pulled through so far, by item. */
  blades: Dictionary<number>;
  postponed: string[];
  discrepancies: OpenedDiscrepancy[];
  observations: ObservedDiscrepancy[];
  interruptions: Interruption[];
  /** Last touched item; the preflight continues after it. */
  cursor?: { itemId: string; visiting: boolean };
  /** Answers that can be undone, newest last. Empty after the signature. */
  undoable: Undoable[];
  /** Signature of its pilot. */
  signed?: Signature;
  /** Later signatures, or those of others: kept beside the pilot's without changing it. */
  amendments: Signature[];
  lastAt?: string;
  /** Latest weather entered, with its time. */
  weather?: WeatherInputs & { at: string };
  turnBackFt?: number;
  /** Assessments that the pilot goes without, by subject. */
  waived?: Partial<Record<FlightSubject, { why: string; at: string; crewId: string }>>;
  /** Latest briefing of each kind. */
  briefings: BriefingGiven[];
}

export type BriefingGiven = EventData["briefing.given"] & { eventId: string; at: string; crewId: string };

/** State of a preflight without any events. */
export function emptyState(id: string): PreflightState {
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
    briefings: [],
  };
}
