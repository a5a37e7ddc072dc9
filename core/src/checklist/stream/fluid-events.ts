import type { Quantity } from "../../units/format";
import type { EventData } from "./events";

/** A cup as a walk remembers it. */
export type FuelSampleTaken = EventData["sample.taken"] & { eventId: string; at: string };

/** Fuel that was put in during a walk, with what had been read of those tanks before. */
export type UpliftSeen = EventData["fuel.uplifted"] & {
  eventId: string;
  at: string;
  /** The readings that it made old, by their keys. */
  before: Record<string, Quantity>;
};

/** Oil that was put in during a walk, with what had been read before it. */
export type OilAdded = EventData["oil.added"] & { eventId: string; at: string; before?: Quantity };
