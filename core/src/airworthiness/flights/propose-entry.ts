import { isCounted, type Meter } from "../meters/meter";
import type { OutAndIn, TechnicalLogEntry } from "./technical-log-entry";

/** What is known of a flight without asking anybody. */
export interface KnownOfFlight {
  registration: string;
  base: string;
  pilot: string;
  crew?: string[];
  /** When the aircraft was accepted, and when it was put away. */
  acceptedAt?: string;
  parkedAt?: string;
  /** What the hour meter said before it, and after it, by the meter's id. */
  readOut?: Record<string, number>;
  readIn?: Record<string, number>;
  /** The line before. */
  before?: TechnicalLogEntry;
  preflight?: string;
}

/** A line as far as it is known, and what has to be asked. */
export interface ProposedLine {
  line: Omit<TechnicalLogEntry, "id" | "meters"> & { meters: Record<string, Partial<OutAndIn>> };
  asks: string[];
}

/**
 * The line that a flight would make: from where the aircraft stood last, at the times that are known, with the meters as they were read and otherwise as
 * they were left. What nobody can know (where to, how many landings by how many launches, the meters after it) is asked. Pure.
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
