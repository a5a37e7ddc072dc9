import type { FuelUnit } from "./fuel-amount";
import type { Sample } from "./fuel-sample";
import type { SampleFate } from "./fuel-told";

/** A cup as a walk remembers it. */
export type FuelSampleTaken = Sample & { itemId: string; eventId: string; at: string; fate?: SampleFate };

/** Fuel that was put in during a walk, with what had been read of those tanks before. */
export interface UpliftSeen {
  eventId: string;
  at: string;
  registration: string;
  tankId?: string;
  amount: number;
  unit: FuelUnit;
  grade?: string;
  receipt?: string;
  from: "pump" | "typed" | "file";
  /** The readings that it made old, by their keys. */
  before: Record<string, number>;
}

/** Oil that was put in during a walk. */
export interface OilAdded {
  eventId: string;
  at: string;
  registration: string;
  engine?: string;
  qt: number;
  grade?: string;
  sealed: boolean;
  /** What had been read before it. */
  beforeQt?: number;
}
