import type { AircraftType, Item, OrderRule, StationPhase, StationRole } from "../aircraft/aircraft-type";
import type { LimitRange } from "../judgement/judgement";
import type { ParameterValue, PartItem, PartSheet } from "./part-sheet";
import type { StationCard, StationSheet } from "./station-sheet";

/** What one aircraft type says differently at an item; null leaves a field out. */
export type ItemChange = { [field in keyof Omit<PartItem, "if">]?: PartItem[field] | null };

/** A part that this aircraft has. */
export interface PartUse {
  part: string;
  /** Values of its parameters. Lists stand for several parts, the left and the right one; the first values go together. */
  with?: Record<string, ParameterValue | ParameterValue[]>;
  /** Options of the part that this aircraft has. */
  has?: string[];
  /** Limits from the handbook, by slot. */
  limits?: Record<string, LimitRange>;
  /** Items and rules of the sheet that this aircraft does not have. */
  without?: string[];
  /** By item id as in the sheet, with or without its parameters. */
  changes?: Record<string, ItemChange>;
}

/** A station on this aircraft. One that the library does not know says its name, phase and role itself. */
export interface StationUse {
  id: string;
  name?: string;
  phase?: StationPhase;
  role?: StationRole;
  x?: number;
  y?: number;
  cards?: StationCard[];
}

/** An item moved from its usual place: it comes right after another of the same station, or first. */
export interface ItemMove {
  item: string;
  after?: string;
}

/** An aircraft type as a composition of parts of the library, with its own limits. */
export interface TypeComposition
  extends Omit<AircraftType, "format" | "stations" | "items" | "groups" | "rules" | "stub"> {
  format: "cravix.aircraft-type/3";
  stations: StationUse[];
  parts: PartUse[];
  /** Items that only this type has. */
  items?: (Item & Pick<PartItem, "card" | "follows">)[];
  order?: ItemMove[];
  rules?: OrderRule[];
}

/** The parts and stations that compositions are made of. */
export interface Library {
  parts: readonly PartSheet[];
  stations: readonly StationSheet[];
}

/** What is wrong in a composition, and where. */
export interface CompositionFault {
  path: string;
  expected: string;
}
