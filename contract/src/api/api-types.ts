import type {
  Aircraft,
  AircraftType,
  Airfield,
  Condition,
  DiscrepancyState,
  EquipmentList,
  FluidRow,
  FuelUnit,
  LastFluids,
  LoadingProfile,
  MemoryReading,
  MinimumEntry,
  OpenDiscrepancy,
  PapersOnFile,
  Preferences,
  PreflightEvent,
  RuleSet,
  SignedVerdict,
  StandingReason,
  Unit,
} from "@cravix/core";
import type { EarlierWalk } from "@cravix/core/station-times";
import type { Refusal } from "../events/refusal";

/** The most events one request may carry. */
export const MAX_BATCH = 500;

export interface EventsRequest {
  events: unknown[];
}

/** What became of a batch: everything not named in `refused` is on record, each once. */
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
  /** What is open, worst first: the first of them where there are very many. */
  open: OpenDiscrepancy[];
  /** What of its papers is against an hour's flight by day, or will be soon. */
  papers: StandingReason[];
  /** Fuel and oil as they were last measured. */
  fluids: LastFluids;
  lastPreflight: PreflightSummary | null;
  /** When it was last accepted for a flight, and by whom. */
  lastFlown: { at: string; crewId: string | null } | null;
}

/** An earlier walk, with how its pilot worked: what was set last is what is set next time. */
export type EarlierWalkWithPreferences = EarlierWalk & { preferences?: Preferences };

/** Everything that a preflight of this aircraft needs, kept on the device for the apron without a network. */
export interface AircraftBundle {
  aircraft: Aircraft;
  type: AircraftType;
  airfield: Airfield | null;
  /** All fields on file: from where it can depart, and where to. */
  fields: Airfield[];
  rules: RuleSet | null;
  openDiscrepancies: OpenDiscrepancy[];
  lastReadings: LastReading[];
  recentPreflights: PreflightSummary[];
  /** Null where no record of its airworthiness is on file. */
  papers: PapersOnFile | null;
  /** Null where no weighing report is on file. */
  loading: LoadingProfile | null;
  equipment: (EquipmentList & { minimum?: MinimumEntry[] }) | null;
  /** The last lines of its fuel and oil log. */
  fluids: FluidRow[];
  /** Readings of the last walks that an engine's and an instrument's baseline is made of. */
  memory: MemoryReading[];
  /** Pace and order of the last walks of this aircraft, newest first. */
  walks: EarlierWalkWithPreferences[];
  /** Complete laps on this type, by crew member. */
  laps: Record<string, number>;
}

export interface Fleet {
  crew: CrewMember[];
  aircraft: AircraftSummary[];
}

export interface Page<T> {
  items: T[];
  /** Hand this back as `before` for the next page; absent on the last one. */
  next?: string;
}

export interface PreflightDetail {
  summary: PreflightSummary;
  listHash: string | null;
  events: PreflightEvent[];
}

/** What became of a log file: good lines are kept, each once. */
export interface ImportOutcome {
  taken: number;
  repeated: number;
  faults: CsvFault[];
}

/** A fault of a table: the line as a spreadsheet counts it, the column, and what was expected there. */
export interface CsvFault {
  row: number;
  column: string;
  expected: string;
}

/** What a self-service pump prints. */
export interface Receipt {
  receipt: string;
  at: string;
  registration: string;
  tankId?: string;
  amount: number;
  unit: FuelUnit;
  grade: string;
}

/** One version of a file of the group. */
export interface FileVersion {
  version: number;
  /** Its content hash. */
  hash: string;
  /** The content hash of the version before it; null for the first. */
  before: string | null;
  at: string;
  /** Who put it on record; null where nobody was named. */
  crewId: string | null;
}

export type DiscrepancyDetail = DiscrepancyState & {
  openedByName: string;
  /** What was measured when it was found. */
  openedMeasure?: string;
};

/** RFC 9457 problem details, with one extension: the faults of what was sent. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  faults?: { path: string; expected: string }[];
}
