import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { type FluidRow, fluidLogOf } from "@cravix/core/logs/fluid-rows";
import type { OilTrend } from "@cravix/core/oil/oil-consumption";
import { useCallback, useEffect, useMemo, useState } from "react";
import { trendOfOil } from "../../device/workers/fluid-work";
import { localFluidRows } from "../../store/preflight/local-fluid-memory";
import { unsyncedEvents } from "../../store/preflight/unsynced-events";
import { useLog } from "../../store/server/server-state";
import type { KnownBundle } from "../../store/state/server-api";

export interface Logs {
  rows: FluidRow[];
  /** By engine; absent while being calculated. */
  trends: { engine: string | undefined; trend: OilTrend }[] | undefined;
  faults: string[];
  problem: string;
  /** True with the server's whole log, false with only what is stored here. */
  whole: boolean;
  reload: () => void;
}

/** The server's entries with those of this device that it does not have yet. */
export function mergedRows(all: readonly FluidRow[], here: readonly FluidRow[]): FluidRow[] {
  const words = (row: FluidRow) => JSON.stringify([row.entry, row.part, row.at, row.amount]);
  const known = new Set(all.map(words));
  return [...all, ...here.filter((row) => !known.has(words(row)))];
}

/** Fuel and oil log of one aircraft: stored entries at once, the server's when they arrive. */
export function useLogs(
  bundle: KnownBundle,
  type: Pick<AircraftType, "fuel" | "engines">,
  fluid: FluidRow["fluid"],
): Logs {
  const [here, setHere] = useState<FluidRow[]>([]);
  const [turn, setTurn] = useState(0);
  const [trends, setTrends] = useState<Logs["trends"]>();
  const [problem, setProblem] = useState("");
  const { registration } = bundle.aircraft;
  // Offline only stored entries are shown, and the page says so.
  const { data: all, refetch } = useLog(registration, fluid);
  useEffect(() => {
    let current = turn >= 0;
    unsyncedEvents(bundle)
      .catch(() => [])
      .then((events) => {
        if (current) setHere(localFluidRows(bundle, events).filter((row) => row.fluid === fluid));
      });
    return () => {
      current = false;
    };
  }, [bundle, fluid, turn]);
  const rows = useMemo(() => {
    return all ? mergedRows(all, here) : here;
  }, [all, here]);
  const log = useMemo(() => fluidLogOf(type, rows), [type, rows]);
  useEffect(() => {
    if (fluid !== "oil") return;
    let current = true;
    Promise.all(
      (type.engines ?? [undefined]).map(async (engine) => ({
        engine,
        trend: await trendOfOil(log.oil.filter((entry) => entry.engine === engine)),
      })),
    ).then(
      (made) => current && setTrends(made),
      (error: Error) => current && setProblem(error.message),
    );
    return () => {
      current = false;
    };
  }, [fluid, log, type.engines]);
  const reload = useCallback(() => {
    setTurn((n) => n + 1);
    refetch();
  }, [refetch]);
  const newestFirst = useMemo(() => [...rows].sort((a, b) => (a.at < b.at ? 1 : -1)), [rows]);
  return { rows: newestFirst, trends, faults: log.faults, problem, whole: all !== undefined, reload };
}
