import type {
  AircraftBundle,
  DiscrepancyDetail,
  EventsResponse,
  Fleet,
  ImportOutcome,
  Page,
  Problem,
  Receipt,
} from "@cravix/contract";
import type { ComposedList, FluidRow, PreflightEvent } from "@cravix/core";

/** The server answered, and said no, in the one shape of its errors. */
export class ProblemError extends Error {
  override readonly name = "ProblemError";
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

const TIMEOUT_MS = 15_000;

async function ask(path: string, init?: RequestInit): Promise<Response> {
  const response = await fetch(`/api/v1${path}`, { ...init, signal: AbortSignal.timeout(TIMEOUT_MS) });
  if (response.ok) return response;
  if (response.headers.get("content-type")?.includes("problem+json"))
    throw new ProblemError(await response.json());
  throw new Error(`The server answered ${response.status}.`);
}

async function call<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await ask(path, init);
  return (response.status === 204 ? undefined : await response.json()) as T;
}

const JSON_TYPE = { "content-type": "application/json" };

export const api = {
  fleet: () => call<Fleet>("/aircraft"),
  bundle: (registration: string) => call<AircraftBundle>(`/aircraft/${encodeURIComponent(registration)}`),
  discrepancies: () => call<{ items: DiscrepancyDetail[] }>("/discrepancies?state=all"),
  sendEvents: (events: readonly PreflightEvent[]) =>
    call<EventsResponse>("/events", { method: "POST", headers: JSON_TYPE, body: JSON.stringify({ events }) }),
  sendList: (hash: string, list: ComposedList) =>
    call<void>(`/lists/${hash}`, { method: "PUT", headers: JSON_TYPE, body: JSON.stringify(list) }),
  /** `basis`: the content hash of the file that the new one was made from; the server says no where another has changed it since. */
  sendFile: (text: string, basis?: string) =>
    call<{ format: string }>("/files", {
      method: "POST",
      headers: { ...JSON_TYPE, ...(basis && { "if-match": `"${basis}"` }) },
      body: text,
    }),
  deliver: (order: { registration: string; tankId: string; litres: number; grade: string }) =>
    call<Receipt>("/pump/deliveries", { method: "POST", headers: JSON_TYPE, body: JSON.stringify(order) }),
  /** One page of an aircraft's log, newest first. */
  fluids: (registration: string, fluid: FluidRow["fluid"], before?: string) =>
    call<Page<FluidRow>>(
      `/aircraft/${encodeURIComponent(registration)}/${fluid}-log?limit=5000${before ? `&before=${encodeURIComponent(before)}` : ""}`,
    ),
  fluidCsv: async (registration: string, fluid: FluidRow["fluid"]) =>
    (await ask(`/aircraft/${encodeURIComponent(registration)}/${fluid}-log.csv`)).blob(),
  sendFluidCsv: (fluid: FluidRow["fluid"], text: string) =>
    call<ImportOutcome>(`/${fluid}-log`, {
      method: "POST",
      headers: { "content-type": "text/csv" },
      body: text,
    }),
  listPdf: async (list: ComposedList) =>
    (await ask("/lists/pdf", { method: "POST", headers: JSON_TYPE, body: JSON.stringify(list) })).blob(),
};
