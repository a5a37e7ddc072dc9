import type { AircraftType } from "../aircraft/aircraft-type";
import { type ExpectedFuel, expectedFuel, type FuelEntry } from "../fuel/log/fuel-log";
import { type OilEntry, type OilTrend, oilTrend } from "../oil/oil-consumption";
import { ONLY_ENGINE } from "../readings/reading-keys";
import type { PastRunUp } from "../run-up/record/baseline";
import { QuantityError } from "../units/convert";

/** Summary of an engine's oil log. */
export type OilMemory = Pick<OilTrend, "overall" | "recent" | "change" | "usualFlightH" | "tooFew"> & {
  /** Last reading, and oil added after it. */
  last?: { at: string; hours: number; levelQt: number; addedQt: number };
};

/** Log summary when the checklist was composed, pinned so that judgements can be repeated. */
export interface FluidMemory {
  hours?: { value: number; at: string; wasAfter?: boolean };
  fuel?: ExpectedFuel;
  /** By engine; a single one is called "engine". */
  oil?: Record<string, OilMemory>;
  /** Invalid log entries, with reasons. */
  faults: string[];
  /** Earlier run-ups, oldest first, for the engine's baseline. */
  runUps?: PastRunUp[];
  /** Last time of each check with an interval, by reading; altimeter readings against the field, for drift. */
  checks?: Record<string, string>;
  altimeter?: { at: string; errorFt: number }[];
}

/** Log entries of fuel and oil from the server or a file, in any order. */
export interface FluidLog {
  fuel: FuelEntry[];
  oil: OilEntry[];
  hours?: FluidMemory["hours"];
}

/** Summarises the log for this type. Invalid entries are named in `faults` and not used. Never throws for log content. */
export function fluidMemory(
  type: Pick<AircraftType, "fuel" | "oil" | "engines">,
  log: FluidLog,
): FluidMemory {
  const faults: string[] = [];
  const attempt = <T>(what: string, make: () => T): T | undefined => {
    try {
      return make();
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      faults.push(`${what}: ${error.message}`);
      return undefined;
    }
  };
  const fuel = attempt("The fuel log", () => type.fuel && expectedFuel(type.fuel.tanks, log.fuel));
  const oil = type.oil
    ? Object.fromEntries(
        (type.engines ?? [undefined]).flatMap((engine) => {
          const own = log.oil.filter((entry) => entry.engine === engine);
          const memory = attempt("The oil log", () => oilMemory(own));
          return memory ? [[engine ?? ONLY_ENGINE, memory] as const] : [];
        }),
      )
    : undefined;
  return { ...(log.hours && { hours: log.hours }), ...(fuel && { fuel }), ...(oil && { oil }), faults };
}

function oilMemory(entries: readonly OilEntry[]): OilMemory {
  const { use, faults: _named, ...trend } = oilTrend(entries);
  const last = use.at(-1);
  if (!last) return trend;
  const addedQt = entries
    .filter((e) => e.entry === "added" && e.at > last.at)
    .reduce((sum, e) => sum + e.qt, 0);
  return { ...trend, last: { at: last.at, hours: last.hours, levelQt: last.levelQt, addedQt } };
}
