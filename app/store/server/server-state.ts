import type { CrewMember } from "@cravix/contract/client";
import type { FluidRow } from "@cravix/core";
import { useCallback, useEffect, useMemo } from "react";
import { useAppDispatch, useAppSelector } from "../hooks";
import type { AppDispatch, RootState } from "../root-state";
import { type KnownBundle, type KnownFleet, serverApi } from "./server-api";

const fleetResult = serverApi.endpoints.fleet.select();
const NOBODY: CrewMember[] = [];
const ANEW = { forceRefetch: true, subscribe: false } as const;

/** What the server said last of the group; undefined before it was ever asked. */
export const fleetOf = (state: RootState): KnownFleet | undefined => fleetResult(state).data;

/** What it said last of one aircraft. */
export const bundleOf = (state: RootState, registration: string): KnownBundle | undefined =>
  serverApi.endpoints.bundle.select(registration)(state).data;

export const useFleet = (): KnownFleet | undefined => useAppSelector(fleetOf);
export const useCrew = (): CrewMember[] => useAppSelector(fleetOf)?.crew ?? NOBODY;
export const useBundle = (registration: string): KnownBundle | undefined =>
  useAppSelector((state) => bundleOf(state, registration));

/**
 * Asks the server anew for the group and, where one is named, for an aircraft. An answer that is on its way was asked for before what has just been
 * done: it is waited for, and asked once more.
 */
export async function refresh(dispatch: AppDispatch, registration?: string): Promise<void> {
  const { getRunningQueryThunk } = serverApi.util;
  await Promise.all([
    dispatch(getRunningQueryThunk("fleet", undefined)),
    registration ? dispatch(getRunningQueryThunk("bundle", registration)) : undefined,
  ]);
  await Promise.all([
    dispatch(serverApi.endpoints.fleet.initiate(undefined, ANEW)),
    registration ? dispatch(serverApi.endpoints.bundle.initiate(registration, ANEW)) : undefined,
  ]);
}

/** What was said so shortly before a page opens is new enough for it, ms. */
const JUST_SAID_MS = 2000;

/** The same for a page that opens: what the server has just said is not asked again. */
export function refreshOnOpening(dispatch: AppDispatch, registration?: string): Promise<void> {
  return dispatch(refreshingOnOpening(registration));
}

const refreshingOnOpening =
  (registration?: string) => async (dispatch: AppDispatch, getState: () => RootState) => {
    const { getRunningQueryThunk } = serverApi.util;
    const just = (said: { saidAt?: number } | undefined) => {
      const age = Date.now() - (said?.saidAt ?? 0);
      // A clock that was put back says nothing of what is new.
      return age >= 0 && age < JUST_SAID_MS;
    };
    const fleet = async () => {
      await dispatch(getRunningQueryThunk("fleet", undefined));
      if (!just(fleetOf(getState()))) await dispatch(serverApi.endpoints.fleet.initiate(undefined, ANEW));
    };
    const bundle = async () => {
      if (!registration) return;
      await dispatch(getRunningQueryThunk("bundle", registration));
      if (!just(bundleOf(getState(), registration)))
        await dispatch(serverApi.endpoints.bundle.initiate(registration, ANEW));
    };
    // What is known already is shown first.
    if (fleetOf(getState())) await painted();
    await Promise.all([fleet(), bundle()]);
    if (registration) void fetchPhotographs(getState(), registration);
  };

/** So long a page has to come to the screen before anything else is done, ms. */
const SHOWN_MS = 150;
/** Resolves when what was drawn is on the screen, or soon where nothing is shown. */
const painted = () =>
  new Promise<void>((resolve) => {
    setTimeout(resolve, 3 * SHOWN_MS);
    if (typeof requestAnimationFrame === "function")
      requestAnimationFrame(() => setTimeout(resolve, SHOWN_MS));
  });

/** So many aircraft are kept on a device without being asked for one by one. */
const MOST_KEPT = 12;

/** Fetches what this device does not have yet of the group's aircraft, one after another: any of them can be prepared without a network. */
export function fetchOthers() {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    for (const { registration, stub } of fleetOf(getState())?.aircraft.slice(0, MOST_KEPT) ?? []) {
      if (stub !== null || bundleOf(getState(), registration)) continue;
      const { error } = await dispatch(
        serverApi.endpoints.bundle.initiate(registration, { subscribe: false }),
      );
      if (error) return;
      await fetchPhotographs(getState(), registration);
    }
  };
}

/** What was photographed of what is open on an aircraft, for whoever stands before it without a network. */
async function fetchPhotographs(state: RootState, registration: string): Promise<void> {
  const hashes = (bundleOf(state, registration)?.openDiscrepancies ?? []).flatMap(({ photographs = [] }) =>
    photographs.map(({ photograph }) => photograph),
  );
  if (hashes.length === 0) return;
  const { fetchPictures } = await import("../../device/photographs/stored-photos");
  // A disk that does not take them: they are fetched when they are looked at.
  await fetchPictures(hashes).catch(() => undefined);
}

/** What the whole group has logged, asked for anew when the page opens and with `refetch`. Not before the device is `ready`. */
export function useDiscrepancies(ready: boolean) {
  const dispatch = useAppDispatch();
  const data = useAppSelector((state) => serverApi.endpoints.discrepancies.select()(state).data);
  const refetch = useCallback(() => {
    if (ready) void dispatch(serverApi.endpoints.discrepancies.initiate(undefined, ANEW));
  }, [dispatch, ready]);
  useEffect(refetch, [refetch]);
  return { data, refetch };
}

/** The last walks of the group, asked for anew when the page opens. */
export function useWalks(ready: boolean) {
  const dispatch = useAppDispatch();
  const result = useAppSelector((state) => serverApi.endpoints.walks.select()(state));
  useEffect(() => {
    if (ready) void dispatch(serverApi.endpoints.walks.initiate(undefined, ANEW));
  }, [dispatch, ready]);
  return { walks: result.data, failed: result.isError };
}

/** The whole of one log; undefined until the server has told it. */
export function useLog(registration: string, fluid: FluidRow["fluid"]) {
  const dispatch = useAppDispatch();
  const select = useMemo(
    () => serverApi.endpoints.log.select({ registration, fluid }),
    [registration, fluid],
  );
  const data = useAppSelector((state) => select(state).data);
  const refetch = useCallback(() => {
    void dispatch(serverApi.endpoints.log.initiate({ registration, fluid }, ANEW));
  }, [dispatch, registration, fluid]);
  useEffect(refetch, [refetch]);
  return { data, refetch };
}
