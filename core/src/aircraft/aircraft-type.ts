import type { CrosswindLimit } from "../air/judge-wind";
import type { ElectricalProfile } from "../electrical/battery";
import type { MagnetoProfile } from "../engine/judge-magnetos";
import type { FuelProfile } from "../fuel/judge-fuel";
import type { FindingGrade, LimitRange, Source } from "../judgement/judgement";
import type { OilProfile } from "../oil/judge-oil";
import type { RunwayMark } from "../performance/abort-point";
import type { Obstacle } from "../performance/climb-out";
import type { Declared, LaunchProfile, PerformanceProfile } from "../performance/performance-profile";
import { READING_TOPICS } from "../readings/reading-keys";
import type { RunUpProfile } from "../run-up/run-up-profile";
import type { Unit } from "../units/convert";
import type { Plausible } from "../units/plausible";
import type { AcceptedWeather } from "../weather/present-hazards";
import type { Cabin } from "./cabin";
import type { MethodTag, Recommended } from "./preferences";

/** Phases of a preflight, in order. */
export const PHASES = ["papers", "cockpit", "lap", "fluids", "board", "run-up", "line-up"] as const;
export type Phase = (typeof PHASES)[number];
/** Phases a station can belong to: a preflight phase, or after the flight. */
export const STATION_PHASES = [...PHASES, "after"] as const;
export type StationPhase = (typeof STATION_PHASES)[number];

/** Purpose of a station, independent of its name in the file. */
export const STATION_ROLES = [
  "approach",
  "papers",
  "loading",
  "cockpit",
  "nose",
  "engine",
  "propeller",
  "wing",
  "fuselage",
  "tail",
  "gear",
  "fuel",
  "oil",
  "boarding",
  "start",
  "taxi",
  "instruments",
  "controls",
  "run-up",
  "take-off",
  "line-up check",
  "parked",
] as const;
export type StationRole = (typeof STATION_ROLES)[number];

/** Subject of an item: a quantity that can be read (hours, fuel, oil …) or something to inspect. */
export const TOPICS = [
  ...READING_TOPICS,
  "airframe",
  "controls",
  "gear",
  "propeller",
  "lights",
  "cabin",
  "briefing",
  "ground",
] as const;
export type Topic = (typeof TOPICS)[number];

/** What can be different about today. */
export const CONDITIONS = [
  "night",
  "instrument",
  "first of the day",
  "refuelled",
  "after maintenance",
  "rain",
  "frost",
  "hot",
  "dusty",
  "nesting season",
  "passengers",
  "solo student",
  "long range",
  "just rigged",
  "turnaround",
  "parked outside",
  "unfamiliar aircraft",
] as const;
export type Condition = (typeof CONDITIONS)[number];

/** Subjects of accidents caused by checking several things at once: an item about one of them is always asked alone. */
export const NEVER_GROUPED = [
  "lock",
  "ignition",
  "pitot",
  "brakes",
  "cap",
  "dip",
  "oil",
  "cowl latch",
  "selector",
  "seat",
  "controls",
  "trim",
  "magnetos",
  "landing gear",
  "fold flag",
  "rigging pin",
  "launch",
  "frost",
] as const;

export const ITEM_KINDS = [
  "look",
  "feel",
  "count",
  "measure",
  "set",
  "remove",
  "sample",
  "pull",
  "choice",
  "time",
  "confirm",
  "observe",
] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];

/**
 * Run-up steps that a trace can answer besides its numbers: back on both, ended on both, carburettor heat and propeller response,
 * ground leaning.
 */
export const TRACED_STEPS = ["both", "end", "heat", "propeller", "lean"] as const;

/** Exercises with their own page. */
export const DRILLS = ["controls"] as const;

/** States that must be restored: removed, switched on, opened, or moved. */
export const LEDGER_WAYS = ["off", "on", "open", "moved"] as const;
export type LedgerWay = (typeof LEDGER_WAYS)[number];

/**
 * Effect of an item on the put-back ledger: something is out, or restored. `count` is the number of pieces, `stow` where it goes
 * meanwhile, `after` the wording for putting it back after the flight.
 */
export type LedgerEffect =
  | { out: string; how: LedgerWay; count?: number; stow?: string; after?: string }
  | { back: string };

export interface ReadingSpec {
  /** Identifies the reading across flights, for instance "oil.level". */
  key: string;
  unit: Unit;
  decimals: number;
  plausible?: Plausible;
  /** Also ask how smoothly the engine ran. */
  feel?: boolean;
}

/** A value to read out, and the aircraft fact it must match. */
export interface ValueCheck {
  ask: string;
  fact: string;
  /** The fact is a month and year, "06/2028"; valid to the end of that month. */
  until?: boolean;
}

/** One item of a checklist. */
export interface Item {
  id: string;
  station: string;
  kind: ItemKind;
  /** Aircraft part or step for the log: "Left aileron". Absent: use the whole title. */
  part?: string;
  topic?: Topic;
  title: string;
  good: string;
  bad?: string;
  why: string;
  caution?: string;
  /** Grade if a problem is found. */
  miss: FindingGrade;
  /** Different grade under a condition: a failed position light is a note by day and a stop at night. */
  missWhen?: { when: Condition; miss: FindingGrade };
  /** Label of the button for "serviceable". */
  done?: string;
  when?: Condition[];
  years?: { from?: number; to?: number };
  expected?: number;
  reading?: ReadingSpec;
  limit?: LimitRange;
  choices?: { value: string; label: string }[];
  /** Choices that the airfield provides. */
  choicesFrom?: "runways";
  ledger?: LedgerEffect;
  /** What the item touches, for the ordering rules: "propeller". */
  touches?: string[];
  /** How long a timed item is held. */
  seconds?: number;
  /** Value a confirm item asks for, and the aircraft fact it must match. */
  confirm?: ValueCheck;
  /** On unpredictable days this item is answered by a value: what to read out, and the aircraft fact. */
  proof?: ValueCheck;
  /** Only with this method; absent: with every method. */
  method?: MethodTag;
  /** Needs a second person: one moves, the other holds. */
  second?: boolean;
  /** Loads it switches on or off, by id in the electrical profile; "all" switches everything off. */
  loads?: { on?: string[]; off?: string[] };
  /** Checked from outside with the power on, at this station of the walkaround. */
  spot?: string;
  /** Answered by the run-up trace if the trace shows this step in order. */
  traced?: (typeof TRACED_STEPS)[number];
  /**
   * Answered by the aircraft's record if it holds these due items (by id): then the item is not asked. "*" means the whole
   * record: the item shows the results and asks only for what no record holds.
   */
  due?: string[];
  /** Never part of a group, because it concerns this subject. */
  alone?: (typeof NEVER_GROUPED)[number];
  /**
   * Asked again on a turnaround: always, or only after refuelling. Items without it are skipped unless today's conditions require
   * them.
   */
  turnaround?: "always" | "refuelled";
  /** Has a practice drill that compares the drawing with the real aircraft. */
  drill?: (typeof DRILLS)[number];
  discrepancyId?: string;
  /** Cause of the discrepancy it asks about, if that was judged: a new reading then updates it instead of opening another. */
  cause?: string;
}

/** An ordering rule with its reason: the first item must be in order before any of the others starts. */
export interface OrderRule {
  id: string;
  first: string;
  /** Items that must wait, by id or by what they touch. */
  waits: { items?: string[]; touches?: string };
  why: string;
  /** Only with this method; absent: with every method. */
  method?: MethodTag;
}

/** Items covered by one look and one touch: one card, each part named, one answer. */
export interface Group {
  id: string;
  title: string;
  /** Item ids of its parts. */
  items: string[];
  /** Label of the button that answers all of them. */
  done?: string;
}

/** A point that cannot be passed while something that must be put back is still off, on or open. */
export interface Gate {
  id: string;
  /** The phase it guards. */
  before: Phase;
  why: string;
}

export interface Station {
  id: string;
  name: string;
  phase: StationPhase;
  role?: StationRole;
  /** Position on the plan view, in its units; stations of the walkaround and the drains have one. */
  x?: number;
  y?: number;
}

/** Outline of the aircraft seen from above. */
export interface PlanView {
  width: number;
  height: number;
  bodies: { d: string; tone: "body" | "line" }[];
  /** Scale of the plan; without it no walking distance is known. */
  metresPerUnit?: number;
  /** Where people get in and out: every walkaround starts and ends here. */
  door?: { x: number; y: number };
  /** Outlines that must be walked around: the fuselage, a low wing, a tail. */
  walls?: [number, number][][];
}

/** Differences of some model years of a type: limits, and the reason in words. */
export interface Variant {
  id: string;
  name: string;
  what: string;
  years: { from?: number; to?: number };
  fuel?: FuelProfile;
  oil?: OilProfile;
  magnetos?: MagnetoProfile;
  crosswind?: CrosswindLimit;
  electrical?: ElectricalProfile;
  runUp?: RunUpProfile;
}

/** An aircraft type as data: stations, items and limits. Never code. */
export interface AircraftType {
  format: "cravix.aircraft-type/2";
  id: string;
  name: string;
  what: string;
  /** Set for a type whose checklist has not been written yet; it has no items. */
  stub?: string;
  plan?: PlanView;
  stations: Station[];
  items: Item[];
  rules?: OrderRule[];
  groups?: Group[];
  gates?: Gate[];
  variants?: Variant[];
  recommended?: Recommended;
  /** Conditions that do not apply to this type, with the reason. */
  notOffered?: { condition: Condition; why: string }[];
  /** Engine names if there is more than one; readings carry them, "oil.level.left". */
  engines?: string[];
  fuel?: FuelProfile;
  oil?: OilProfile;
  magnetos?: MagnetoProfile;
  crosswind?: CrosswindLimit;
  electrical?: ElectricalProfile;
  /** Run-up profile, shared by all its engines. */
  runUp?: RunUpProfile;
  /** Take-off, landing and climb performance. */
  performance?: PerformanceProfile;
  /** Gliders only: launch methods and their wind limits. */
  launch?: LaunchProfile;
  /** What passengers are told about belts, exits and equipment. */
  cabin?: Cabin;
  /** Weather that its handbook allows to fly in; otherwise it is a stop. */
  weatherAccepted?: { what: AcceptedWeather; source: Source }[];
  /** Has a tail wheel, which changes how controls are held while taxiing. */
  tailwheel?: true;
}

/** An item added to one aircraft. A retired one stays in the file with its date and is no longer asked. */
export type OwnItem = Item & { retired?: string };

/** One aircraft of the group. */
export interface Aircraft {
  format: "cravix.aircraft/2";
  registration: string;
  typeId: string;
  year: number;
  base: string;
  story?: string;
  ownItems: OwnItem[];
  /** Values printed on this aircraft: its emergency beacon's battery date, its serial plate. */
  facts?: Record<string, string>;
  /** Id of its rule set, if different from its airfield's. */
  rules?: string;
}

export interface Runway {
  id: string;
  /** Magnetic. The painted designator is rounded to ten degrees. */
  headingDeg: number;
  lengthM: number;
  surface: string;
  /** Declared distances; absent: unknown. */
  declared?: Declared;
  /** Positive if uphill in its direction. */
  slopePercent?: number;
  /** Landmarks beside it, seen from the start of the take-off. */
  marks?: RunwayMark[];
  /** Obstacle beyond its end. */
  beyond?: Obstacle;
  /** Take-offs from intersections, with the distances declared from there. */
  intersections?: { name: string; declared: Declared }[];
}

export interface Airfield {
  format: "cravix.airfield/1";
  id: string;
  name: string;
  elevationFt: number;
  /** Degrees, north and east positive; for sun position and magnetic variation. */
  lat?: number;
  lon?: number;
  /** Station whose reports apply to this field. */
  station?: string;
  /** Id of this airfield's rule set. */
  rules?: string;
  runways: Runway[];
}

/** Index of a station's phase in the order of a flight, from 0. */
export function phaseIndex(phase: StationPhase): number {
  return STATION_PHASES.indexOf(phase);
}
