import type { AircraftBundle, DiscrepancyDetail, Fleet, PreflightSummary } from "@cravix/contract/client";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { createApi, fakeBaseQuery } from "@reduxjs/toolkit/query/react";
import { api, ProblemError, ServerUnreachableError } from "../../device/api";
import { earlyFleetRequest } from "../../device/early-fleet";
import { readNote, saveNote } from "../../device/log/notes";
import { serverReached } from "./sync-slice";

/** Aircraft bundle with the time received, by this device's clock. */
export type KnownBundle = AircraftBundle & { saidAt?: number };

/** Group data with the time received. */
export type KnownFleet = Fleet & { saidAt?: number };

/** Maximum log entries loaded: fifty years of a busy trainer. */
const MAX_ROWS = 25_000;

/** Why a request failed. `reached`: the server itself refused. */
export interface ServerError {
  message: string;
  reached: boolean;
  /** What is wrong with a file that was sent. */
  faults?: { path: string; expected: string }[];
}

type Asked<T> = { data: T } | { error: ServerError };

/** Result of a request, or why it failed. */
export async function asked<T>(ask: () => Promise<T>): Promise<Asked<T>> {
  try {
    return { data: await ask() };
  } catch (error) {
    return { error: serverError(error) };
  }
}

function serverError(error: unknown): ServerError {
  const { message } = error as Error;
  if (error instanceof ProblemError)
    return { message, reached: true, ...(error.problem.faults && { faults: error.problem.faults }) };
  return { message, reached: !(error instanceof ServerUnreachableError) };
}

/** Data that pages reload when this device has sent events. */
export const SENT_TAGS = [
  "Discrepancies",
  "Preflights",
  "Flights",
  "Releases",
  "Workshop",
  "Fluids",
] as const;

/** Requests from the server; if it does not respond, returns the stored response. */
export async function fetchOrCached<T>(
  ask: () => Promise<T>,
  note: string,
  dispatch: (action: ReturnType<typeof serverReached>) => unknown,
): Promise<Asked<T>> {
  try {
    const data = await ask();
    dispatch(serverReached(true));
    void saveNote(note, data);
    return { data };
  } catch (error) {
    // An error response means the server was reached.
    const failed = serverError(error);
    dispatch(serverReached(failed.reached));
    const before = await readNote<T>(note).catch(() => undefined);
    return before === undefined ? { error: failed } : { data: before };
  }
}

/** Cached server data. Local events are kept in the device's own log. */
export const serverApi = createApi({
  reducerPath: "server",
  baseQuery: fakeBaseQuery<ServerError>(),
  tagTypes: [...SENT_TAGS],
  // Offline, cached data is all there is.
  keepUnusedDataFor: Number.POSITIVE_INFINITY,
  endpoints: (build) => ({
    fleet: build.query<KnownFleet, void>({
      queryFn: (_arg, { dispatch }) =>
        fetchOrCached(
          async () => {
            const { saidAt, fleet } = earlyFleetRequest() ?? { saidAt: Date.now(), fleet: api.fleet() };
            return { ...(await fleet), saidAt };
          },
          "fleet",
          dispatch,
        ),
    }),
    bundle: build.query<KnownBundle, string>({
      queryFn: (registration, { dispatch }) =>
        fetchOrCached(
          async () => {
            const saidAt = Date.now();
            return { ...(await api.bundle(registration)), saidAt };
          },
          `bundle:${registration}`,
          dispatch,
        ),
    }),
    discrepancies: build.query<{ items: DiscrepancyDetail[]; remembered: boolean }, void>({
      providesTags: ["Discrepancies"],
      queryFn: async (_arg, { dispatch }) => {
        let remembered = true;
        const found = await fetchOrCached(
          async () => {
            const { items } = await api.discrepancies();
            remembered = false;
            return items;
          },
          "discrepancies",
          dispatch,
        );
        return { data: { items: "data" in found ? found.data : [], remembered } };
      },
    }),
    walks: build.query<PreflightSummary[], void>({
      providesTags: ["Preflights"],
      queryFn: (_arg, { dispatch }) =>
        fetchOrCached(async () => (await api.walks()).items, "walks", dispatch),
    }),
    /** A whole log; not stored, because a summary comes with the aircraft. */
    log: build.query<FluidRow[], { registration: string; fluid: FluidRow["fluid"] }>({
      providesTags: ["Fluids"],
      queryFn: ({ registration, fluid }) =>
        asked(async () => {
          const all: FluidRow[] = [];
          let before: string | undefined;
          do {
            const page = await api.fluids(registration, fluid, before);
            all.push(...page.items);
            before = page.next;
          } while (before && all.length < MAX_ROWS);
          return all;
        }),
    }),
  }),
});
