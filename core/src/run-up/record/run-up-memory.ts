import {
  isReadingOf,
  READING,
  type ReadingKind,
  readingDefinition,
  readingKey,
} from "../../readings/reading-keys";
import { convert, isConvertible, type Unit } from "../../units/convert";
import type { PastRunUp } from "./baseline";

/** A recorded reading of an earlier preflight. */
export interface MemoryReading {
  preflightId: string;
  key: string;
  value: number;
  /** Absent in records older than units: then the vocabulary's unit. */
  unit?: Unit;
  at: string;
}

/** Prefixes of readings used for engine and instrument history. */
export const REMEMBERED = [
  READING.magnetoBase,
  READING.magnetoRight,
  READING.magnetoLeft,
  READING.carburettorHot,
  READING.densityAltitude,
  READING.altimeter,
  READING.receiverOne,
  READING.receiverTwo,
] as const;

/** Reading in the vocabulary's unit; undefined if missing or in an incompatible unit. */
function usableValue(kind: ReadingKind, reading: MemoryReading | undefined): number | undefined {
  if (!reading) return undefined;
  const wanted = readingDefinition(kind).unit;
  const { value, unit = wanted } = reading;
  if (!wanted || !unit) return value;
  return isConvertible(unit, wanted) ? convert(value, unit, wanted) : undefined;
}

/**
 * Earlier run-ups of every engine, oldest first, from recorded readings. A preflight without base rpm had no run-up. Rpm, feet;
 * readings in another unit are converted, incompatible ones left out.
 */
export function pastRunUps(
  readings: readonly MemoryReading[],
  engines: readonly string[] | undefined,
): PastRunUp[] {
  const walks = new Map<string, Map<string, MemoryReading>>();
  for (const reading of readings) {
    const preflight = walks.get(reading.preflightId) ?? new Map<string, MemoryReading>();
    preflight.set(reading.key, reading);
    walks.set(reading.preflightId, preflight);
  }
  const found: PastRunUp[] = [];
  for (const preflight of walks.values())
    for (const engine of engines ?? [undefined]) {
      const value = (kind: ReadingKind, of?: string) =>
        usableValue(kind, preflight.get(readingKey(kind, of)));
      const at = preflight.get(readingKey(READING.magnetoBase, engine))?.at;
      const base = value(READING.magnetoBase, engine);
      if (at === undefined || base === undefined || !(base > 0)) continue;
      const drop = (kind: ReadingKind) => {
        const rpm = value(kind, engine);
        return rpm === undefined ? undefined : base - rpm;
      };
      const right = drop(READING.magnetoRight);
      const left = drop(READING.magnetoLeft);
      const heat = drop(READING.carburettorHot);
      const high = value(READING.densityAltitude);
      found.push({
        at,
        baseRpm: base,
        ...(engine && { engine }),
        ...(right !== undefined && { rightDrop: right }),
        ...(left !== undefined && { leftDrop: left }),
        ...(heat !== undefined && { heatDrop: heat }),
        ...(high !== undefined && { densityAltitudeFt: high }),
      });
    }
  return found.sort((a, b) => (a.at < b.at ? -1 : 1));
}

/**
 * Altimeter errors against the field in earlier preflights, oldest first, and the last times of checks with an interval. Feet.
 * Impossible readings are left out.
 */
export function instrumentMemory(readings: readonly MemoryReading[], elevationFt: number | undefined) {
  const altimeter =
    elevationFt === undefined
      ? []
      : readings
          .filter(({ key }) => isReadingOf(key, READING.altimeter))
          .flatMap((reading) => {
            const feet = usableValue(READING.altimeter, reading);
            return feet === undefined ? [] : [{ at: reading.at, errorFt: feet - elevationFt }];
          })
          .sort((a, b) => (a.at < b.at ? -1 : 1));
  const checks: Record<string, string> = {};
  for (const { key, at } of readings)
    if ((key === READING.receiverOne || key === READING.receiverTwo) && at > (checks[key] ?? ""))
      checks[key] = at;
  return { altimeter, checks };
}
