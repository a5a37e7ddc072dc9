import { isCounted, type Meter } from "../meters/meter";
import type { OutAndIn, TechnicalLogEntry } from "./technical-log-entry";

/** What is already known about a flight. */
export interface KnownOfFlight {
  registration: string;
  base: string;
  pilot: string;
  crew?: string[];
  /** When the aircraft was accepted, and when it was secured after the flight. */
  acceptedAt?: string;
  parkedAt?: string;
  /** Hour meter readings before and after it, by meter id. */
  readOut?: Record<string, number>;
  readIn?: Record<string, number>;
  /** Previous entry. */
  before?: TechnicalLogEntry;
  preflight?: string;
}

/** A partial entry, and what must still be asked. */
export interface ProposedLine {
  line: Omit<TechnicalLogEntry, "id" | "meters"> & { meters: Record<string, Partial<OutAndIn>> };
  asks: string[];
}

/**
 * Proposes the technical log entry for a flight: from the last known place, with known times, meters as read or else as last
 * logged. What cannot be known (destination, landings and launches, meters afterwards) is asked. Pure.
 */
export function proposeLine(known: KnownOfFlight, meters: readonly Meter[]): ProposedLine {
  const { registration, base, pilot, crew, acceptedAt, parkedAt, readOut = {}, readIn = {}, before } = known;
  const asks: string[] = [];
  const read: Record<string, Partial<OutAndIn>> = {};
  const counts: Record<string, number> = {};
  for (const meter of meters) {
    if (isCounted(meter.kind)) {
      if (meter.kind === "landings") counts[meter.id] = 1;
      continue;
    }
    const out = readOut[meter.id] ?? before?.meters[meter.id]?.in;
    const back = readIn[meter.id];
    read[meter.id] = { ...(out !== undefined && { out }), ...(back !== undefined && { in: back }) };
    if (out === undefined) asks.push(`meters.${meter.id}.out`);
    if (back === undefined) asks.push(`meters.${meter.id}.in`);
  }
  const from = before?.to ?? base;
  if (!acceptedAt) asks.push("off");
  if (!parkedAt) asks.push("on");
  return {
    line: {
      registration,
      from,
      to: base,
      off: acceptedAt ?? "",
      on: parkedAt ?? "",
      pilot,
      ...(crew && crew.length > 0 && { crew }),
      meters: read,
      counts,
      ...(known.preflight && { preflight: known.preflight }),
    },
    asks,
  };
}
