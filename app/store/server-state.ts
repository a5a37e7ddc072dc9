import type { CrewMember, Fleet } from "@cravix/contract/client";
import { useAppSelector } from "./hooks";
import type { AppDispatch, RootState } from "./root-state";
import { type KnownBundle, serverApi } from "./server-api";

const fleetResult = serverApi.endpoints.fleet.select();
const NOBODY: CrewMember[] = [];

/** What the server said last of the group; undefined before it was ever asked. */
export const fleetOf = (state: RootState): Fleet | undefined => fleetResult(state).data;

/** What it said last of one aircraft. */
export const bundleOf = (state: RootState, registration: string): KnownBundle | undefined =>
  serverApi.endpoints.bundle.select(registration)(state).data;

export const useFleet = (): Fleet | undefined => useAppSelector(fleetOf);
export const useCrew = (): CrewMember[] => useAppSelector(fleetOf)?.crew ?? NOBODY;
export const useBundle = (registration: string): KnownBundle | undefined =>
  useAppSelector((state) => bundleOf(state, registration));

/** Asks the server for the group and one aircraft anew; without a network what is remembered stays. */
export async function refresh(dispatch: AppDispatch, registration?: string): Promise<void> {
  const anew = { forceRefetch: true, subscribe: false } as const;
  await Promise.all([
    dispatch(serverApi.endpoints.fleet.initiate(undefined, anew)),
    registration ? dispatch(serverApi.endpoints.bundle.initiate(registration, anew)) : undefined,
  ]);
}
