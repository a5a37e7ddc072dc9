import type { AircraftType } from "../aircraft/aircraft-type";
import { type ExpectedFuel, expectedFuel, type FuelEntry } from "../fuel/log/fuel-log";
import { type OilEntry, type OilTrend, oilTrend } from "../oil/oil-consumption";
import { ONLY_ENGINE } from "../readings/reading-keys";
import type { PastRunUp } from "../run-up/record/baseline";
import { QuantityError } from "../units/convert";

/** What an engine's oil log amounts to, without its lines. */
export type OilMemory = Pick<OilTrend, "overall" | "recent" | "change" | "usualFlightH" | "tooFew"> & {
  /** The last reading, and what was put in after it. */
  last?: { at: string; hours: number; levelQt: number; addedQt: number };
};

/** What the log knew when the list was made: pinned in the list, so that a judgement can be made again from it. */
export interface FluidMemory {
  hours?: { value: number; at: string; wasAfter?: boolean };
  fuel?: ExpectedFuel;
  /** By engine; the only one is called "engine". */
  oil?: Record<string, OilMemory>;
  /** Lines of the log that cannot be, and why. */
  faults: string[];
  /** Earlier run-ups, oldest first: an engine's own baseline. */
  runUps?: PastRunUp[];
  /** When a check with a time limit was done last, by its reading's name; altimeter readings against the field, to see a drift. */
  checks?: Record<string, string>;
  altimeter?: { at: string; errorFt: number }[];
}

/** The log as it comes from the server or a file: lines of fuel and oil, in any order. */
export interface FluidLog {
  fuel: FuelEntry[];
  oil: OilEntry[];
  hours?: FluidMemory["hours"];
}

/**
 * What the log amounts to for this type. A log that cannot be read in some part is named, and does not count there; nothing is guessed. Never
 * throws for what the log says: each fault is in `faults`, in words.
 */
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
