import type { Item, OrderRule } from "../aircraft/aircraft-type";
import type { Unit } from "../units/convert";

/** A value that a composition gives for a parameter. */
export type ParameterValue = string | number;

/** What differs between two aircraft that have the same part. `usual` is used if the composition says nothing. */
export interface PartParameter {
  what: string;
  /** The values it can have. */
  of?: string[];
  /** A whole number, with its bounds. */
  number?: { least: number; most: number };
  /** Free words, at most this many characters. */
  words?: number;
  usual?: ParameterValue;
}

/** A limit from the aircraft's handbook that one of the part's readings is judged by. */
export interface LimitSlot {
  what: string;
  unit: Unit;
}

/**
 * An item of a part. Texts and ids may name parameters: "{side}", or "{Side}" at the start of a sentence. Fields with numbers may
 * be a parameter: `"expected": "{hinges}"`.
 */
export type PartItem = Omit<Item, "expected" | "seconds" | "discrepancyId" | "cause"> & {
  expected?: number | string;
  seconds?: number | string;
  /** Only where the aircraft has this option of the part. */
  if?: string;
  /** The card of its station it may share with others; absent: asked on its own. */
  card?: string;
  /** Comes right after this item if the station does not name it in its order. */
  follows?: string;
  /** The slot that its limit comes from. */
  limitFrom?: string;
};

/**
 * One part of an aircraft, described once for all aircraft that have it: what is looked at, in which order, and why.
 */
export interface PartSheet {
  format: "cravix.part/1";
  id: string;
  name: string;
  what: string;
  /** The place on the aircraft that it fills, "{side} aileron": no two parts fill the same. */
  place?: string;
  parameters?: Record<string, PartParameter>;
  /** What some aircraft have at this part and others have not. */
  options?: Record<string, string>;
  limits?: Record<string, LimitSlot>;
  items: PartItem[];
  /** Rules about its items; those about items that an aircraft does not have are left out there. */
  rules?: OrderRule[];
}
