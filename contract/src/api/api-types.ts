import type { Aircraft, AircraftType, Airfield, Condition } from "@cravix/core/aircraft/aircraft-type";
import type { Preferences } from "@cravix/core/aircraft/preferences";
import type { EquipmentList, MinimumEntry } from "@cravix/core/airworthiness/deferral/deferral-rules";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { DiscrepancyState } from "@cravix/core/checklist/stream/fold-discrepancies";
import type { FuelUnit } from "@cravix/core/fuel/grade/fuel-amount";
import type { SignedVerdict } from "@cravix/core/judgement/judgement";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import type { LastFluids } from "@cravix/core/logs/last-fluids";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import type { EarlierPreflight } from "@cravix/core/pace/station-times";
import type { RuleSet } from "@cravix/core/rules/rule-set";
import type { MemoryReading } from "@cravix/core/run-up/record/run-up-memory";
import type { Unit } from "@cravix/core/units/convert";
import type { StatusReason } from "@cravix/core/verdict/aircraft-status";
import type { Refusal } from "./refusal";

/** Maximum events per request. */
export const MAX_BATCH = 500;

export interface EventsRequest {
  events: unknown[];
}

/** Result of a batch: everything not in `refused` is on record, once. */
export interface EventsResponse {
  taken: number;
  repeated: number;
  refused: Refusal[];
}

export const CREW_ROLES = ["pilot", "student", "instructor", "mechanic", "owner", "administrator"] as const;
export type CrewRole = (typeof CREW_ROLES)[number];
export interface CrewMember {
  id: string;
  name: string;
  role: CrewRole;
}

export interface LastReading {
  key: string;
  value: number;
  unit: Unit;
  at: string;
  crewId: string;
}

export interface PreflightSummary {
  id: string;
  registration: string | null;
  crewId: string | null;
  startedAt: string | null;
  lastAt: string | null;
  conditions: Condition[];
  answered: number;
  found: number;
  verdict: SignedVerdict | null;
  decision: "fly" | "not flying" | null;
  signedAt: string | null;
}

export interface AircraftSummary {
  registration: string;
  typeName: string;
  what: string;
  stub: string | null;
  story: string | null;
  openDiscrepancies: number;
  /** Open discrepancies, worst first; limited in number. */
  open: OpenDiscrepancy[];
  /** Due items that prevent a one-hour day flight, or are due soon. */
  papers: StatusReason[];
  /** Fuel and oil as last measured. */
  fluids: LastFluids;
  lastPreflight: PreflightSummary | null;
  /** Last acceptance for a flight. */
  lastFlown: { at: string; crewId: string | null } | null;
}

/** An earlier preflight with its pilot's preferences, which become the default. */
export type EarlierPreflightWithPreferences = EarlierPreflight & { preferences?: Preferences };

/** Everything a preflight of this aircraft needs, stored on the device for offline use. */
export interface AircraftBundle {
  aircraft: Aircraft;
  type: AircraftType;
  airfield: Airfield | null;
  /** All fields on file, for departure and destination. */
  fields: Airfield[];
  rules: RuleSet | null;
  openDiscrepancies: OpenDiscrepancy[];
  lastReadings: LastReading[];
  recentPreflights: PreflightSummary[];
  /** Null without an airworthiness record. */
  papers: AirworthinessOnFile | null;
  /** Null without a weighing report. */
  loading: LoadingProfile | null;
  equipment: (EquipmentList & { minimum?: MinimumEntry[] }) | null;
  /** Latest entries of its fuel and oil log. */
  fluids: FluidRow[];
  /** Readings of recent preflights, for baselines. */
  memory: MemoryReading[];
  /** Pace and order of recent preflights of this aircraft, newest first. */
  walks: EarlierPreflightWithPreferences[];
  /** Complete walkarounds of this type, by crew member. */
  laps: Record<string, number>;
}

export interface Fleet {
  crew: CrewMember[];
  aircraft: AircraftSummary[];
}

export interface Page<T> {
  items: T[];
  /** Cursor for the next page as `before`; absent on the last. */
  next?: string;
}

export interface PreflightDetail {
  summary: PreflightSummary;
  listHash: string | null;
  events: PreflightEvent[];
}

/** Result of a log import: valid lines are stored, once. */
export interface ImportOutcome {
  taken: number;
  repeated: number;
  faults: CsvFault[];
}

/** A fault in a CSV file: line as counted by a spreadsheet, column, and expectation. */
export interface CsvFault {
  row: number;
  column: string;
  expected: string;
}

/** Receipt of a self-service pump. */
export interface Receipt {
  receipt: string;
  at: string;
  registration: string;
  tankId?: string;
  amount: number;
  unit: FuelUnit;
  grade: string;
}

/** A version of a file of the group. */
export interface FileVersion {
  version: number;
  /** Content hash. */
  hash: string;
  /** Content hash of the previous version; null for the first. */
  before: string | null;
  at: string;
  /** Who saved it; null if unknown. */
  crewId: string | null;
}

export type DiscrepancyDetail = DiscrepancyState & {
  openedByName: string;
  /** Measure when it was found. */
  openedMeasure?: string;
};

/** RFC 9457 problem details, extended by the faults of the request. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  faults?: { path: string; expected: string }[];
}
