import type { AircraftBundle } from "@cravix/contract";
import { type AircraftType, type FluidRow, fluidLogOf, type OilTrend } from "@cravix/core";
import { useCallback, useEffect, useMemo, useState } from "react";
import { api } from "../../device/api";
import { allEvents } from "../../device/event-log";
import { trendOfOil } from "../../device/fluid-work";
import { fluidRowsHere } from "../../store/fluid-memory-here";

/** More than this is not fetched at once: fifty years of a busy trainer. */
const MOST_ROWS = 25_000;

export interface Logs {
  rows: FluidRow[];
  /** By engine; absent while it is worked out. */
  trends: { engine: string | undefined; trend: OilTrend }[] | undefined;
  faults: string[];
  trouble: string;
  /** Whether the server's whole log is here, or only what this device keeps. */
  whole: boolean;
  reload: () => void;
}

/** The whole fuel and oil log of one aircraft: what the device keeps at once, the server's as soon as it comes. */
export function useLogs(
  bundle: AircraftBundle,
  type: Pick<AircraftType, "fuel" | "engines">,
  fluid: FluidRow["fluid"],
): Logs {
  const [rows, setRows] = useState<FluidRow[]>([]);
  const [whole, setWhole] = useState(false);
  const [turn, setTurn] = useState(0);
  const [trends, setTrends] = useState<Logs["trends"]>();
  const [trouble, setTrouble] = useState("");
  const { registration } = bundle.aircraft;
  useEffect(() => {
    let current = turn >= 0;
    const load = async () => {
      const here = fluidRowsHere(bundle, await allEvents()).filter((row) => row.fluid === fluid);
      if (!current) return;
      setRows(here);
      setWhole(false);
      try {
        const all: FluidRow[] = [];
        let before: string | undefined;
        do {
          const page = await api.fluids(registration, fluid, before);
          all.push(...page.items);
          before = page.next;
        } while (before && all.length < MOST_ROWS);
        const known = new Set(all.map((row) => JSON.stringify([row.entry, row.part, row.at, row.amount])));
        const unsent = here.filter(
          (row) => !known.has(JSON.stringify([row.entry, row.part, row.at, row.amount])),
        );
        if (!current) return;
        setRows([...all, ...unsent]);
        setWhole(true);
      } catch {
        // Without the server what this device keeps has to do; the page says so.
      }
    };
    void load();
    return () => {
      current = false;
    };
  }, [bundle, registration, fluid, turn]);
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
      (error: Error) => current && setTrouble(error.message),
    );
    return () => {
      current = false;
    };
  }, [fluid, log, type.engines]);
  const reload = useCallback(() => setTurn((n) => n + 1), []);
  const newestFirst = useMemo(() => [...rows].sort((a, b) => (a.at < b.at ? 1 : -1)), [rows]);
  return { rows: newestFirst, trends, faults: log.faults, trouble, whole, reload };
}
