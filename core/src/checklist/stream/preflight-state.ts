import type { Condition } from "../../aircraft/aircraft-type";
import type { Preferences } from "../../aircraft/preferences";
import type { LaunchWay } from "../../airworthiness/airworthiness-snapshot";
import type { Purpose } from "../../airworthiness/due/due-item";
import type { EngineFeel } from "../../engine/classify-drop";
import type { FuelInputs } from "../../fuel/fuel-inputs";
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
  /** The card that it was answered on, together with others. */
  card?: string;
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
  /** Together with whatever else was answered on this card at this moment. */
  card?: string;
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
  plannedLandings?: number;
  plannedLaunch?: LaunchWay;
  plannedLoad?: PlannedLoad;
  /** What the flight is for, where it may pass a limit of its papers. */
  purpose?: Purpose;
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
  told: FuelInputs;
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
  /** What was said of the weather, and when; the last of it. */
  weather?: WeatherInputs & { at: string };
  turnBackFt?: number;
  /** The briefings that were given, the last of each kind. */
  briefings: BriefingGiven[];
}

export type BriefingGiven = EventData["briefing.given"] & { eventId: string; at: string; crewId: string };

/** A preflight of which nothing has arrived yet. */
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
