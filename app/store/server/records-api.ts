import type { Receipt } from "@cravix/contract/client";
import type { ComponentSnapshot } from "@cravix/core/airworthiness/component-moves";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { WorkshopPlan } from "@cravix/core/airworthiness/plan/workshop-plan";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { api } from "../../device/api";
import { asked, fetchOrCached, serverApi } from "../state/server-api";

/** Log entry as displayed. */
export type ShownLine = TechnicalLogEntry & {
  corrections: number;
  struck: boolean;
  loggedBy?: string | null;
  here?: boolean;
};

/** A component in storage. */
export type OnShelf = ComponentSnapshot & {
  from: string;
  at: string;
  /** Why its times cannot be calculated. */
  problem?: string;
};

export interface Workshop {
  plan: (WorkshopPlan & { at: string; crewId: string }) | null;
  shelf: OnShelf[];
}

export type SignedRelease = Awaited<ReturnType<typeof api.releases>>["items"][number];

/** Requests for the technical log, releases, the workshop, files, the pump and the weather station. */
export const recordsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    /** Technical log, newest first, page by page. */
    flights: build.infiniteQuery<{ items: ShownLine[]; next?: string }, string, string | undefined>({
      infiniteQueryOptions: {
        initialPageParam: undefined,
        getNextPageParam: ({ next }) => next,
      },
      providesTags: ["Flights"],
      queryFn: ({ queryArg, pageParam }) => asked(() => api.flights(queryArg, pageParam)),
    }),
    importFlights: build.mutation<
      Awaited<ReturnType<typeof api.sendFlightCsv>>,
      { registration: string; table: string }
    >({
      invalidatesTags: ["Flights"],
      queryFn: ({ registration, table }) => asked(() => api.sendFlightCsv(registration, table)),
    }),
    importFluids: build.mutation<
      Awaited<ReturnType<typeof api.sendFluidCsv>>,
      { fluid: FluidRow["fluid"]; table: string }
    >({
      invalidatesTags: ["Fluids"],
      queryFn: ({ fluid, table }) => asked(() => api.sendFluidCsv(fluid, table)),
    }),
    releases: build.query<SignedRelease[], string>({
      providesTags: ["Releases"],
      queryFn: (registration) => asked(async () => (await api.releases(registration)).items),
    }),
    /** The published plan, and components in storage. */
    workshop: build.query<Workshop, void>({
      providesTags: ["Workshop"],
      queryFn: (_arg, { dispatch }) =>
        fetchOrCached(async () => (await api.workshop()) as Workshop, "workshop", dispatch),
    }),
    /** `basis`: content hash of the version that the file changes. */
    sendFile: build.mutation<unknown, { text: string; basis?: string }>({
      queryFn: ({ text, basis }) => asked(() => api.sendFile(text, basis)),
    }),
    deliver: build.mutation<Receipt, { registration: string; tankId: string; litres: number; grade: string }>(
      {
        queryFn: (order) => asked(() => api.deliver(order)),
      },
    ),
    /** The latest report of a station; never cached, because an old report must not pass for the latest. */
    fetchWeather: build.mutation<Awaited<ReturnType<typeof api.weather>>, string>({
      queryFn: (station) => asked(() => api.weather(station)),
    }),
  }),
});

export const {
  useFlightsInfiniteQuery,
  useImportFlightsMutation,
  useImportFluidsMutation,
  useReleasesQuery,
  useWorkshopQuery,
  useSendFileMutation,
  useDeliverMutation,
  useFetchWeatherMutation,
} = recordsApi;
