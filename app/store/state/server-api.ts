import type { AircraftBundle, DiscrepancyDetail, Fleet, PreflightSummary } from "@cravix/contract/client";
import type { PersonRecord } from "@cravix/core/airworthiness/people/person-due";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
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
  /** Its status, if the server itself answered. */
  status?: number;
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
    return {
      message,
      reached: true,
      status: error.problem.status,
      ...(error.problem.faults && { faults: error.problem.faults }),
    };
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
  "PersonDue",
] as const;

/** Key prefix of a person's stored due items. */
export const OWN_DUE_ITEMS = "own due items:";

/** Due items of a person including personal minimums and authorisations, with the time received. */
export interface KeptRecord {
  record: PersonRecord;
  saidAt: number;
}

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
    /** Due items of a person. Only one's `own` are stored on the device. */
    personDue: build.query<KeptRecord, { personId: string; own: boolean }>({
      providesTags: ["PersonDue"],
      queryFn: ({ personId, own }) =>
        asked(async () => {
          const saidAt = Date.now();
          const told = { record: (await api.personDue(personId)) as PersonRecord, saidAt };
          // Saving is retried in the background.
          if (own) void saveNote(OWN_DUE_ITEMS + personId, told);
          return told;
        }),
    }),
    /** A preflight begun on another device. */
    preflight: build.query<Awaited<ReturnType<typeof api.preflight>>, string>({
      queryFn: (id) => asked(() => api.preflight(id)),
    }),
    /** A checklist by its content hash. */
    list: build.query<ComposedList, string>({
      queryFn: (hash) => asked(() => api.list(hash)),
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
