import type { CrewMember } from "@cravix/contract/client";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { useCallback } from "react";
import { useAppSelector } from "../state/hooks";
import type { AppDispatch, RootState } from "../state/root-state";
import { type KnownBundle, type KnownFleet, serverApi } from "../state/server-api";

const fleetResult = serverApi.endpoints.fleet.select();
const NOBODY: CrewMember[] = [];
const ANEW = { forceRefetch: true, subscribe: false } as const;

/** Latest group data; undefined before the first load. */
export const fleetOf = (state: RootState): KnownFleet | undefined => fleetResult(state).data;

/** Latest data of one aircraft. */
export const bundleOf = (state: RootState, registration: string): KnownBundle | undefined =>
  serverApi.endpoints.bundle.select(registration)(state).data;

export const useFleet = (): KnownFleet | undefined => useAppSelector(fleetOf);
export const useCrew = (): CrewMember[] => useAppSelector(fleetOf)?.crew ?? NOBODY;
export const useBundle = (registration: string): KnownBundle | undefined =>
  useAppSelector((state) => bundleOf(state, registration));

/** Reloads the group and optionally an aircraft. A pending request predates the latest change, so it is awaited and repeated. */
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

/** Data younger than this is not reloaded when a page opens, ms. */
const JUST_SAID_MS = 2000;

/** Reload on opening a page, unless the data is fresh. */
export function refreshOnOpening(dispatch: AppDispatch, registration?: string): Promise<void> {
  return dispatch(refreshingOnOpening(registration));
}

const refreshingOnOpening =
  (registration?: string) => async (dispatch: AppDispatch, getState: () => RootState) => {
    const { getRunningQueryThunk } = serverApi.util;
    const just = (said: { saidAt?: number } | undefined) => {
      const age = Date.now() - (said?.saidAt ?? 0);
      // A clock set back makes ages invalid.
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
    // Show known data first.
    if (fleetOf(getState())) await painted();
    await Promise.all([fleet(), bundle()]);
    if (registration) void fetchPhotographs(getState(), registration);
  };

/** Maximum wait for painting, ms. */
const SHOWN_MS = 150;
/** Resolves after painting, or soon if nothing is shown. */
const painted = () =>
  new Promise<void>((resolve) => {
    setTimeout(resolve, 3 * SHOWN_MS);
    if (typeof requestAnimationFrame === "function")
      requestAnimationFrame(() => setTimeout(resolve, SHOWN_MS));
  });

/** Maximum aircraft stored without being opened. */
const MAX_KEPT = 12;

/** Loads the group's other aircraft one by one, so that any can be prepared offline. */
export function fetchOthers() {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    for (const { registration, stub } of fleetOf(getState())?.aircraft.slice(0, MAX_KEPT) ?? []) {
      if (stub !== null || bundleOf(getState(), registration)) continue;
      const { error } = await dispatch(
        serverApi.endpoints.bundle.initiate(registration, { subscribe: false }),
      );
      if (error) return;
      await fetchPhotographs(getState(), registration);
    }
  };
}

/** Downloads photos of open discrepancies of an aircraft for offline use. */
async function fetchPhotographs(state: RootState, registration: string): Promise<void> {
  const hashes = (bundleOf(state, registration)?.openDiscrepancies ?? []).flatMap(({ photographs = [] }) =>
    photographs.map(({ photograph }) => photograph),
  );
  if (hashes.length === 0) return;
  const { fetchPictures } = await import("../../device/photographs/stored-photos");
  // If they cannot be stored, they are loaded when viewed.
  await fetchPictures(hashes).catch(() => undefined);
}

const ON_OPENING = { refetchOnMountOrArgChange: true } as const;

/** Discrepancies of the group, reloaded when the page opens and by `refetch`; not before the device is `ready`. */
export function useDiscrepancies(ready: boolean) {
  const { data, refetch, isUninitialized } = serverApi.useDiscrepanciesQuery(undefined, {
    ...ON_OPENING,
    skip: !ready,
  });
  const again = useCallback(() => {
    if (!isUninitialized) void refetch();
  }, [isUninitialized, refetch]);
  return { data, refetch: again };
}

/** Recent preflights of the group, reloaded when the page opens. */
export function usePreflights(ready: boolean) {
  const { data, isError } = serverApi.useWalksQuery(undefined, { ...ON_OPENING, skip: !ready });
  return { walks: data, failed: isError };
}

/** A whole log; undefined until loaded. */
export function useLog(registration: string, fluid: FluidRow["fluid"]) {
  const { data, refetch } = serverApi.useLogQuery({ registration, fluid }, ON_OPENING);
  const again = useCallback(() => void refetch(), [refetch]);
  return { data, refetch: again };
}
