import type { CrosswindLimit } from "../air/judge-wind";
import type { DeferralRules } from "../airworthiness/deferral/deferral-rules";
import type { ElectricalProfile } from "../electrical/battery";
import type { MagnetoProfile } from "../engine/judge-magnetos";
import type { FuelProfile, FuelReserve } from "../fuel/judge-fuel";
import type { FindingGrade, LimitRange, Source } from "../judgement/judgement";
import type { OilProfile } from "../oil/judge-oil";
import type { RunwayMark } from "../performance/abort-point";
import type { Obstacle } from "../performance/climb-out";
import type { Declared, LaunchProfile, PerformanceProfile } from "../performance/performance-profile";
import { READING_TOPICS } from "../readings/reading-keys";
import type { RunUpProfile } from "../run-up/run-up-profile";
import type { Unit } from "../units/convert";
import type { Plausible } from "../units/plausible";
import type { NightBegins } from "../weather/night-begins";
import type { MethodTag, Recommended } from "./preferences";

/** The parts of a preflight in their order. */
export const PHASES = ["papers", "cockpit", "lap", "fluids", "board", "run-up", "line-up"] as const;
export type Phase = (typeof PHASES)[number];
/** Where a station can stand: in a part of the preflight, or in the putting away after the flight. */
export const STATION_PHASES = [...PHASES, "after"] as const;
export type StationPhase = (typeof STATION_PHASES)[number];

/** What a place is for, whatever it is called in the file. */
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

/** What an item is about: what can be read (hours, fuel, oil …), or what is looked at. */
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

/** Things that have killed when they were ticked off along with something else: an item about one of them is always asked by itself. */
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

/** Steps of a run-up that a trace can answer besides its numbers: back on both, ended on both, heat and propeller that answer, leaned for the ground. */
export const TRACED_STEPS = ["both", "end", "heat", "propeller", "lean"] as const;

/** What is drilled on a page of its own. */
export const DRILLS = ["controls"] as const;

/** How a thing can be out: off the aircraft, switched on, opened, or moved from where it has to be. */
export const LEDGER_WAYS = ["off", "on", "open", "moved"] as const;
export type LedgerWay = (typeof LEDGER_WAYS)[number];

/**
 * What an item does to the ledger: something is out, or back as it must be. `count` says how many pieces it is, `stow` where it goes
 * meanwhile, `after` in which words it is put back after the flight.
 */
export type LedgerEffect =
  | { out: string; how: LedgerWay; count?: number; stow?: string; after?: string }
  | { back: string };

export interface ReadingSpec {
  /** Names the reading across flights, for instance "oil.level". */
  key: string;
  unit: Unit;
  decimals: number;
  plausible?: Plausible;
  /** Ask how the engine ran along with the number. */
  feel?: boolean;
}

/** What is to be read out, and the aircraft's fact that it must agree with. */
export interface ValueCheck {
  ask: string;
  fact: string;
  /** The fact is a month and a year, "06/2028", to the end of which the thing may be used. */
  until?: boolean;
}

/** One thing to do or look at. */
export interface Item {
  id: string;
  station: string;
  kind: ItemKind;
  /** What of the aircraft, or which step, as it is logged: "Left aileron". Absent: the whole title says it. */
  part?: string;
  topic?: Topic;
  title: string;
  good: string;
  bad?: string;
  why: string;
  caution?: string;
  /** What it is worth when this is found wrong. */
  miss: FindingGrade;
  /** On such a day it is worth more: a position light by day is a note, by night it is a stop. */
  missWhen?: { when: Condition; miss: FindingGrade };
  /** Words on the button that answers "as it should be". */
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
  /** What is laid hands on, for the ordering rules: "propeller". */
  touches?: string[];
  /** How long a time item is held. */
  seconds?: number;
  /** What a confirm item asks to be read out, and the aircraft's fact that it must agree with. */
  confirm?: ValueCheck;
  /** On some days, nobody knows which, this item is answered by a value instead: what to read out, and the aircraft's fact. */
  proof?: ValueCheck;
  /** Only with this method; without it with every one. */
  method?: MethodTag;
  /** Needs a second person: one moves, the other holds. */
  second?: boolean;
  /** What it switches on or off, by the electrical profile's ids; "all" is everything off. */
  loads?: { on?: string[]; off?: string[] };
  /** Looked at from outside while the power is on: at this station of the lap. */
  spot?: string;
  /** Answered by the trace of the run-up where this step is found in it as it should be. */
  traced?: (typeof TRACED_STEPS)[number];
  /**
   * Answered by the aircraft's record, where it has these due items, by their ids: then it is not asked. "*" is the whole record: the item shows what was
   * judged, and asks what no record knows.
   */
  due?: string[];
  /** Never one part of a group, because it is about this. */
  alone?: (typeof NEVER_GROUPED)[number];
  /** Asked again on a turnaround: always, or only where fuel was put in. An item without it is not; what belongs to today's conditions is. */
  turnaround?: "always" | "refuelled";
  /** There is a drill for it: what is drawn is held against the real one. */
  drill?: (typeof DRILLS)[number];
  discrepancyId?: string;
  /** What is behind the discrepancy that it asks about, where that was judged: measured again, it is not opened anew. */
  cause?: string;
}

/** One thing before another, with the reason: the first item must be found in order before any of the others is begun. */
export interface OrderRule {
  id: string;
  first: string;
  /** The items that wait, by id or by what they lay hands on. */
  waits: { items?: string[]; touches?: string };
  why: string;
  /** Only with this method; without it with every one. */
  method?: MethodTag;
}

/** What the eye takes in at one look and the hand at one touch: one card, each part named, one answer. */
export interface Group {
  id: string;
  title: string;
  /** Its parts, by their items. */
  items: string[];
  /** Words on the button that answers all of them. */
  done?: string;
}

/** A point that is not passed while something is off, on or open that should not be. */
export interface Gate {
  id: string;
  /** The part of the preflight that it guards. */
  before: Phase;
  why: string;
}

export interface Station {
  id: string;
  name: string;
  phase: StationPhase;
  role?: StationRole;
  /** Where a person stands, in the plan view's own units; stations of the lap and of the drains have one. */
  x?: number;
  y?: number;
}

/** The aircraft seen from above, as its own outline. */
export interface PlanView {
  width: number;
  height: number;
  bodies: { d: string; tone: "body" | "line" }[];
  /** The plan's scale; without it no length of a walk is known. */
  metresPerUnit?: number;
  /** Where one gets in and out: every lap begins and ends here. */
  door?: { x: number; y: number };
  /** Outlines that nobody walks through: the fuselage, a low wing, a tail. */
  walls?: [number, number][][];
}

/** What is different on some model years of a type: its limits, and in words why. */
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
  /** A type whose list has not been written yet says so here, and has no items. */
  stub?: string;
  plan?: PlanView;
  stations: Station[];
  items: Item[];
  rules?: OrderRule[];
  groups?: Group[];
  gates?: Gate[];
  variants?: Variant[];
  recommended?: Recommended;
  /** Conditions under which it is not flown, or that mean nothing on it, with the reason. */
  notOffered?: { condition: Condition; why: string }[];
  /** The names of its engines where it has more than one: their readings carry them, "oil.level.left". */
  engines?: string[];
  fuel?: FuelProfile;
  oil?: OilProfile;
  magnetos?: MagnetoProfile;
  crosswind?: CrosswindLimit;
  electrical?: ElectricalProfile;
  /** How its engine is run up; each of them where there is more than one. */
  runUp?: RunUpProfile;
  /** What it needs to take off and land, and how it climbs. */
  performance?: PerformanceProfile;
  /** A glider: how it may be launched, in which wind. */
  launch?: LaunchProfile;
  /** It stands on a tail wheel: the wind is another while it taxies. */
  tailwheel?: true;
}

/** An item of one aircraft alone. A retired one stays in the file, with the day, and is asked no more. */
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
  /** What can be read on this very aircraft: its emergency beacon's battery date, its serial plate. */
  facts?: Record<string, string>;
  /** The rule set that it is flown by, where that is not its airfield's. */
  rules?: string;
}

export interface Runway {
  id: string;
  /** Magnetic. What is painted on it is rounded to ten degrees. */
  headingDeg: number;
  lengthM: number;
  surface: string;
  /** What may be used of it; without it nobody knows. */
  declared?: Declared;
  /** Uphill in its direction above zero. */
  slopePercent?: number;
  /** What can be seen beside it, from where the take-off begins. */
  marks?: RunwayMark[];
  /** What stands beyond its end. */
  beyond?: Obstacle;
}

export interface Airfield {
  format: "cravix.airfield/1";
  id: string;
  name: string;
  elevationFt: number;
  /** Degrees, north and east positive: for the sun and the variation. */
  lat?: number;
  lon?: number;
  /** The station whose reports are of this field. */
  station?: string;
  /** The rule set of this place, by its id. */
  rules?: string;
  runways: Runway[];
}

/** Rules as data; an example set ships, others can be added. */
export interface RuleSet {
  format: "cravix.rule-set/1";
  id: string;
  name: string;
  reserves: { when: "day" | "night" | "instrument"; minutes: number; source: Source }[];
  altimeter?: { feet: number; source: Source };
  /** From when night counts. */
  night?: { begins: NightBegins; source: Source };
  /** What take-off and landing distances are multiplied by, at least. */
  runwayFactors?: { takeOff: number; landing: number; source: Source };
  /** Least visibility and ceiling by sight, for every pilot. */
  minima?: { visibilityM?: number; ceilingFt?: number; source: Source };
  /** How something that does not work may be put off. */
  deferral?: DeferralRules;
  /** Whether a pilot may do and sign preventive work, and by which rule; absent: no. */
  preventive?: { source: Source };
}

/** The minutes that must remain on landing today: the greatest that applies. */
export function reserveFor(
  rules: RuleSet | undefined,
  conditions: readonly Condition[],
): FuelReserve | undefined {
  const applies = rules?.reserves.filter(
    ({ when }) => when === "day" || conditions.includes(when as Condition),
  );
  return applies?.reduce<FuelReserve | undefined>(
    (most, { minutes, source }) => (most && most.minutes >= minutes ? most : { minutes, source }),
    undefined,
  );
}

/** Where a station's part stands in the order of a flight, from 0. */
export function phaseIndex(phase: StationPhase): number {
  return STATION_PHASES.indexOf(phase);
}
