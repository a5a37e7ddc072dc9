import type { Quantity } from "../../units/format";
import type { EventData } from "./events";

/** A fuel sample in the preflight state. */
export type FuelSampleTaken = EventData["sample.taken"] & { eventId: string; at: string };

/** Fuel added during a preflight, with the tank readings before it. */
export type UpliftSeen = EventData["fuel.uplifted"] & {
  eventId: string;
  at: string;
  /** Readings it made obsolete, by key. */
  before: Record<string, Quantity>;
};

/** Oil added during a preflight, with the reading before it. */
export type OilAdded = EventData["oil.added"] & { eventId: string; at: string; before?: Quantity };
