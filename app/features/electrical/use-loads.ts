import { foldLoads } from "@cravix/core/checklist/fold-loads";
import { batteryState } from "@cravix/core/electrical/battery";
import { useEffect, useMemo, useState } from "react";
import type { LoadedPreflight } from "../open-preflight";

/** Loads that are on and their consumption, updated every second. */
export function useLoads({ list, state }: Pick<LoadedPreflight, "list" | "state">) {
  const [now, setNow] = useState(() => Date.now());
  const loads = useMemo(
    () => foldLoads(list, state, Math.max(now, Date.parse(state.lastAt ?? "") || 0)),
    [list, state, now],
  );
  const running = loads.onSince !== undefined;
  useEffect(() => {
    if (!running) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [running]);
  const { electrical } = list.type;
  const battery = useMemo(
    () =>
      electrical && state.celsius !== undefined
        ? batteryState(electrical, loads.spans, loads.amps, state.celsius)
        : undefined,
    [electrical, loads, state.celsius],
  );
  return { ...loads, now, battery };
}
