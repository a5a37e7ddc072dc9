import type { AircraftType } from "../aircraft/aircraft-type";
import { type FluidRow, fluidLogOf } from "./fluid-rows";

/** Last measured fuel. */
export interface LastFuel {
  /** All measured tanks together. */
  litres: number;
  /** Time of the oldest of these measurements, ISO 8601. */
  at: string;
  /** Number of measured tanks, and of all tanks: fewer measured means an incomplete sum. */
  measured: number;
  tanks: number;
  /** Litres added later and not measured since. */
  putInL?: number;
}

/** Last oil reading of one engine. */
export interface LastOil {
  engine?: string;
  qt: number;
  at: string;
  /** Quarts added later and not read since. */
  putInQt?: number;
  minimumQt?: number;
}

export interface LastFluids {
  fuel?: LastFuel;
  oil: LastOil[];
}

/**
 * Fuel (litres) and oil (US quarts) as last measured, from log entries in any order: the newest measurement of each tank and
 * engine, and later additions. Burn since then is not estimated. Invalid entries are ignored. Never throws.
 */
export function lastFluids(
  type: Pick<AircraftType, "fuel" | "oil" | "engines">,
  rows: readonly FluidRow[],
): LastFluids {
  const log = fluidLogOf(type, rows);
  const fuel = type.fuel && lastFuel(type.fuel.tanks, log.fuel);
  const oil = (type.engines ?? [undefined]).flatMap((engine): LastOil[] => {
    const own = log.oil.filter((entry) => entry.engine === engine);
    const last = newest(own.filter(({ entry }) => entry === "level"));
    if (!last || !type.oil) return [];
    const putIn = own.filter(({ entry, at }) => entry === "added" && at > last.at);
    const minimumQt = type.oil.minimumQt;
    return [
      {
        ...(engine !== undefined && { engine }),
        qt: last.qt,
        at: last.at,
        ...(putIn.length > 0 && { putInQt: sum(putIn.map(({ qt }) => qt)) }),
        ...(minimumQt !== undefined && { minimumQt }),
      },
    ];
  });
  return { ...(fuel && { fuel }), oil };
}

function lastFuel(
  tanks: readonly { id: string }[],
  log: ReturnType<typeof fluidLogOf>["fuel"],
): LastFuel | undefined {
  const measured = tanks.flatMap(
    ({ id }) => newest(log.filter(({ entry, tankId }) => entry === "measured" && tankId === id)) ?? [],
  );
  const oldest = measured.map(({ at }) => at).sort()[0];
  if (oldest === undefined) return undefined;
  const since = new Map(measured.map(({ tankId, at }) => [tankId, at]));
  // An uplift without a tank went into one of them: after the oldest measurement it is not in every reading.
  const putIn = log.filter(
    ({ entry, tankId, at }) => entry === "uplift" && at > (since.get(tankId) ?? oldest),
  );
  return {
    litres: sum(measured.map(({ litres }) => litres)),
    at: oldest,
    measured: measured.length,
    tanks: tanks.length,
    ...(putIn.length > 0 && { putInL: sum(putIn.map(({ litres }) => litres)) }),
  };
}

const newest = <T extends { at: string }>(entries: readonly T[]): T | undefined =>
  entries.reduce<T | undefined>((last, one) => (last && last.at >= one.at ? last : one), undefined);

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);
