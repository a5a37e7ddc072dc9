import { useEffect, useMemo } from "react";
import { preferencesOf } from "../../store/preflight/preferences-of";
import { retryUntilLoaded } from "../../store/server/retry-until-loaded";
import { useBundle, useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { NOTHING_PLANNED } from "../../store/state/planned-slice";
import { useOpenDiscrepancies } from "./use-open-discrepancies";

/** Data of one aircraft for pages before a preflight: bundle, plan, preferences. */
export function useAircraft(registration: string) {
  const dispatch = useAppDispatch();
  const { ready, crewId } = useAppSelector((state) => state.session);
  const bundle = useBundle(registration);
  const crew = useCrew();
  const server = useAppSelector((state) => state.sync.server);
  const plan = useAppSelector((state) => state.planned.byRegistration[registration]) ?? NOTHING_PLANNED;
  const set = useAppSelector((state) => state.planned.preferences);
  const open = useOpenDiscrepancies(bundle);
  useEffect(() => {
    const leaves = new AbortController();
    if (ready) void dispatch(retryUntilLoaded(registration, leaves.signal));
    return () => leaves.abort();
  }, [ready, dispatch, registration]);
  const preferences = useMemo(
    () => (bundle ? preferencesOf(bundle, crewId, set, crew) : undefined),
    [bundle, crewId, set, crew],
  );
  return { ready, crewId, bundle, crew, server, plan, preferences, open };
}

export type AircraftInHand = ReturnType<typeof useAircraft>;
