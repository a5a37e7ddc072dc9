import type { AircraftBundle, DiscrepancyDetail, Fleet, PreflightSummary } from "@cravix/contract/client";
import type { FluidRow } from "@cravix/core";
import { createApi, fakeBaseQuery } from "@reduxjs/toolkit/query";
import { api, ServerUnreachableError } from "../../device/api";
import { fleetAskedEarly } from "../../device/early-fleet";
import { keepNote, readNote } from "../../device/log/notes";
import { serverReached } from "../sync/sync-slice";

/** What is known of an aircraft, and when the server said so, by this device's clock. */
export type KnownBundle = AircraftBundle & { saidAt?: number };

/** What is known of the group, and when the server said so. */
export type KnownFleet = Fleet & { saidAt?: number };

/** More than this is not fetched at once: fifty years of a busy trainer. */
const MOST_ROWS = 25_000;

type Asked<T> = { data: T } | { error: { message: string; reached: boolean } };

/** Asks the server; where it does not answer, what it said last, as this device kept it, has to do. */
async function askOrRemember<T>(
  ask: () => Promise<T>,
  note: string,
  dispatch: (action: ReturnType<typeof serverReached>) => unknown,
): Promise<Asked<T>> {
  try {
    const data = await ask();
    dispatch(serverReached(true));
    void keepNote(note, data);
    return { data };
  } catch (error) {
    // A no from the server is an answer: the network is there.
    const reached = !(error instanceof ServerUnreachableError);
    dispatch(serverReached(reached));
    const before = await readNote<T>(note).catch(() => undefined);
    return before === undefined
      ? { error: { message: (error as Error).message, reached } }
      : { data: before };
  }
}

/** What the server knows, fetched and remembered in one way. What happened on this device is not here: that is the device's own log. */
export const serverApi = createApi({
  reducerPath: "server",
  baseQuery: fakeBaseQuery<{ message: string; reached: boolean }>(),
  // On an apron without a network what was said once is all there is.
  keepUnusedDataFor: Number.POSITIVE_INFINITY,
  endpoints: (build) => ({
    fleet: build.query<KnownFleet, void>({
      queryFn: (_arg, { dispatch }) =>
        askOrRemember(
          async () => {
            const { saidAt, fleet } = fleetAskedEarly() ?? { saidAt: Date.now(), fleet: api.fleet() };
            return { ...(await fleet), saidAt };
          },
          "fleet",
          dispatch,
        ),
    }),
    bundle: build.query<KnownBundle, string>({
      queryFn: (registration, { dispatch }) =>
        askOrRemember(
          async () => {
            const saidAt = Date.now();
            return { ...(await api.bundle(registration)), saidAt };
          },
          `bundle:${registration}`,
          dispatch,
        ),
    }),
    discrepancies: build.query<{ items: DiscrepancyDetail[]; remembered: boolean }, void>({
      queryFn: async (_arg, { dispatch }) => {
        let remembered = true;
        const asked = await askOrRemember(
          async () => {
            const { items } = await api.discrepancies();
            remembered = false;
            return items;
          },
          "discrepancies",
          dispatch,
        );
        return { data: { items: "data" in asked ? asked.data : [], remembered } };
      },
    }),
    walks: build.query<PreflightSummary[], void>({
      queryFn: (_arg, { dispatch }) =>
        askOrRemember(async () => (await api.walks()).items, "walks", dispatch),
    }),
    /** The whole of one log; it is not remembered: what the device keeps of it comes with the aircraft. */
    log: build.query<FluidRow[], { registration: string; fluid: FluidRow["fluid"] }>({
      queryFn: async ({ registration, fluid }) => {
        try {
          const all: FluidRow[] = [];
          let before: string | undefined;
          do {
            const page = await api.fluids(registration, fluid, before);
            all.push(...page.items);
            before = page.next;
          } while (before && all.length < MOST_ROWS);
          return { data: all };
        } catch (error) {
          return {
            error: { message: (error as Error).message, reached: !(error instanceof ServerUnreachableError) },
          };
        }
      },
    }),
  }),
});
