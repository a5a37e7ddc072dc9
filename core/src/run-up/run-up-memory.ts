import { engineKey, READING } from "../checklist/reading-keys";
import type { PastRunUp } from "./habit";

/** One reading of an earlier walk, as it is kept. */
export interface MemoryReading {
  preflightId: string;
  key: string;
  value: number;
  at: string;
}

/** Readings that an engine's and an instrument's memory is made of, by the beginning of their names. */
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

/** Earlier run-ups of every engine, oldest first, out of the readings of earlier walks. A walk without a base rpm had no run-up. */
export function pastRunUps(
  readings: readonly MemoryReading[],
  engines: readonly string[] | undefined,
): PastRunUp[] {
  const walks = new Map<string, Map<string, MemoryReading>>();
  for (const reading of readings) {
    const walk = walks.get(reading.preflightId) ?? new Map<string, MemoryReading>();
    walk.set(reading.key, reading);
    walks.set(reading.preflightId, walk);
  }
  const found: PastRunUp[] = [];
  for (const walk of walks.values())
    for (const engine of engines ?? [undefined]) {
      const value = (key: string) => walk.get(engineKey(key, engine))?.value;
      const base = walk.get(engineKey(READING.magnetoBase, engine));
      if (!base || !(base.value > 0)) continue;
      const drop = (key: string) => {
        const rpm = value(key);
        return rpm === undefined ? undefined : base.value - rpm;
      };
      const right = drop(READING.magnetoRight);
      const left = drop(READING.magnetoLeft);
      const heat = drop(READING.carburettorHot);
      const high = walk.get(READING.densityAltitude)?.value;
      found.push({
        at: base.at,
        baseRpm: base.value,
        ...(engine && { engine }),
        ...(right !== undefined && { rightDrop: right }),
        ...(left !== undefined && { leftDrop: left }),
        ...(heat !== undefined && { heatDrop: heat }),
        ...(high !== undefined && { densityAltitudeFt: high }),
      });
    }
  return found.sort((a, b) => (a.at < b.at ? -1 : 1));
}

/** What the altimeter was beside the field at earlier walks, oldest first, and when checks with a time limit were done last. */
export function instrumentMemory(readings: readonly MemoryReading[], elevationFt: number | undefined) {
  const altimeter =
    elevationFt === undefined
      ? []
      : readings
          .filter(({ key }) => key === READING.altimeter)
          .map(({ at, value }) => ({ at, errorFt: value - elevationFt }))
          .sort((a, b) => (a.at < b.at ? -1 : 1));
  const checks: Record<string, string> = {};
  for (const { key, at } of readings)
    if ((key === READING.receiverOne || key === READING.receiverTwo) && at > (checks[key] ?? ""))
      checks[key] = at;
  return { altimeter, checks };
}
