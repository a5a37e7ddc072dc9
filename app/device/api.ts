import type { EventsResponse, Problem, Receipt } from "@cravix/contract/client";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
// Type only: gives the client the server's response types.
import type { Api } from "@cravix/server/api";
import { hc } from "hono/client";

/** An error response of the server. `waitMs`: how long to wait before retrying. */
export class ProblemError extends Error {
  override readonly name = "ProblemError";
  constructor(
    readonly problem: Problem,
    readonly waitMs?: number,
  ) {
    super(problem.detail);
  }
}

/** No response, or not from the server: no network, or the sign-in page of a captive portal. */
export class ServerUnreachableError extends Error {
  override readonly name = "NotReached";
}

const TIMEOUT_MS = 15_000;
/** Longer than the server's limit of twenty seconds for heavy work, so that no finished work is abandoned. */
const HEAVY_MS = 30_000;
const heavy = () => ({ signal: AbortSignal.timeout(HEAVY_MS) });

let aheadMs = 0;
/** How far this device's clock is ahead of the server's, from its last response; to about a second. */
export const clockAheadMs = (): number => aheadMs;

let holder: string | undefined;
/** Sets the crew member sent with requests that are not events. */
export function tellHolder(crewId: string | null): void {
  holder = crewId ?? undefined;
}

async function ask(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    const headers = new Headers(init?.headers);
    if (holder) headers.set("cravix-crew", encodeURIComponent(holder));
    response = await fetch(input, {
      ...init,
      headers,
      signal: init?.signal ?? AbortSignal.timeout(TIMEOUT_MS),
    });
  } catch {
    throw new ServerUnreachableError(`The server cannot be reached. Check the connection, then try again.`);
  }
  const said = Date.parse(response.headers.get("date") ?? "");
  if (!Number.isNaN(said)) aheadMs = Date.now() - said;
  if (response.ok) return response;
  if (!response.headers.get("content-type")?.includes("problem+json"))
    throw new ServerUnreachableError(
      `The network answered with ${response.status} instead of the Cravix server. Check the connection, then try again.`,
    );
  const seconds = Number(response.headers.get("retry-after") ?? Number.NaN);
  throw new ProblemError(
    (await response.json()) as Problem,
    Number.isFinite(seconds) ? seconds * 1000 : undefined,
  );
}

const client = hc<Api>("/api/v1", { fetch: ask });

/** JSON type: optional properties are absent, never undefined. */
type Said<T> = T extends object ? { [K in keyof T]: Said<Exclude<T[K], undefined>> } : T;

/** Reads a response of the expected shape; anything else did not come from the server. */
async function read<T>(answer: Promise<{ json(): Promise<T> }>): Promise<Said<T>> {
  const response = await answer;
  try {
    return (await response.json()) as Said<T>;
  } catch {
    throw new ServerUnreachableError(
      "The network answered instead of the Cravix server. Sign in to the network, then try again.",
    );
  }
}

const text = (type: string, body: string, more: RequestInit = {}) => ({
  init: { body, headers: { "content-type": type }, ...more },
});
const logs = (fluid: FluidRow["fluid"]) => {
  const { aircraft } = client;
  const one = aircraft[":registration"];
  return fluid === "fuel"
    ? { page: one["fuel-log"], table: one["fuel-log.csv"], all: client["fuel-log"] }
    : { page: one["oil-log"], table: one["oil-log.csv"], all: client["oil-log"] };
};

export const api = {
  fleet: () => read(client.aircraft.$get()),
  bundle: (registration: string) => read(client.aircraft[":registration"].$get({ param: { registration } })),
  discrepancies: () => read(client.discrepancies.$get({ query: { state: "all" } })),
  /** The group's latest preflights, newest first. */
  walks: () => read(client.preflights.$get({ query: { limit: "60" } })),
  preflight: (id: string) => read(client.preflights[":id"].$get({ param: { id } })),
  list: (hash: string) => read(client.lists[":hash"].$get({ param: { hash } })),
  sendEvents: async (events: readonly PreflightEvent[]): Promise<EventsResponse> => {
    const answer = await read(client.events.$post({ json: { events: [...events] } }));
    // A captive portal that answers everything with success has not accepted any event.
    if (!Array.isArray(answer?.refused) || typeof answer.taken !== "number")
      throw new ServerUnreachableError(
        "The network answered instead of the Cravix server. Sign in to the network, then try again.",
      );
    return answer;
  },
  sendList: (hash: string, list: ComposedList) =>
    client.lists[":hash"].$put({ param: { hash } }, text("application/json", JSON.stringify(list))),
  /** `basis`: content hash of the file the new version is based on; the server rejects it if another change came first. */
  sendFile: (body: string, basis?: string) =>
    read(
      client.files.$post(
        { query: { check: "false" } },
        {
          init: {
            body,
            headers: { "content-type": "application/json", ...(basis && { "if-match": `"${basis}"` }) },
          },
        },
      ),
    ),
  deliver: (order: { registration: string; tankId: string; litres: number; grade: string }) =>
    read(client.pump.deliveries.$post({ json: order })) as Promise<Receipt>,
  /** Report text of a field's weather station. */
  weather: (station: string) => read(client.weather[":station"].$get({ param: { station } })),
  /** One page of an aircraft's fuel or oil log, newest first. */
  fluids: (registration: string, fluid: FluidRow["fluid"], before?: string) =>
    read(
      logs(fluid).page.$get({ param: { registration }, query: { limit: "5000", ...(before && { before }) } }),
    ),
  fluidCsv: async (registration: string, fluid: FluidRow["fluid"]) =>
    (await logs(fluid).table.$get({ param: { registration } })).blob(),
  sendFluidCsv: (fluid: FluidRow["fluid"], table: string) =>
    read(logs(fluid).all.$post({}, text("text/csv", table, heavy()))),
  /** One page of the technical log, newest first. */
  flights: (registration: string, before?: string) =>
    read(
      client.aircraft[":registration"].flights.$get({
        param: { registration },
        query: { limit: "60", ...(before && { before }) },
      }),
    ),
  flightCsv: async (registration: string) =>
    (await client.aircraft[":registration"]["flights.csv"].$get({ param: { registration } })).blob(),
  sendFlightCsv: (registration: string, table: string) =>
    read(
      client.aircraft[":registration"]["flight-log"].$post(
        { param: { registration } },
        text("text/csv", table, heavy()),
      ),
    ),
  flightsPdf: async (registration: string) =>
    (
      await client.aircraft[":registration"]["flights.pdf"].$get(
        { param: { registration } },
        { init: heavy() },
      )
    ).blob(),
  releasePdf: async (id: string) =>
    (await client.releases[":id"]["paper.pdf"].$get({ param: { id } }, { init: heavy() })).blob(),
  releases: (registration: string) =>
    read(client.aircraft[":registration"].releases.$get({ param: { registration } })),
  /** Due items of a person; only with permission. */
  personDue: (person: string) => read(client.people[":person"].due.$get({ param: { person } })),
  /** The published workshop plan, and components in storage. */
  workshop: () => read(client.workshop.$get()),
  planCsv: async () => (await client.workshop["plan.csv"].$get()).blob(),
  planIcs: async () => (await client.workshop["plan.ics"].$get()).blob(),
  photograph: async (hash: string) => (await client.photographs[":hash"].$get({ param: { hash } })).blob(),
  sendPhotograph: (hash: string, bytes: ArrayBuffer, type: string) =>
    client.photographs[":hash"].$put(
      { param: { hash } },
      { init: { body: bytes, headers: { "content-type": type } } },
    ),
  listPdf: async (list: ComposedList) =>
    (await client.lists.pdf.$post({}, text("application/json", JSON.stringify(list), heavy()))).blob(),
};
