import type { Emergency, Procedure } from "@cravix/core/run-up";
import type { manualValuesFromTrace } from "@cravix/core/run-up-entry";

export type ManualValues = ReturnType<typeof manualValuesFromTrace>;

/** Why the monitor is listened to: a run-up, clearing a plug after one, or clearing alone. */
export type Listening = "run-up" | "after clearing" | "clearing alone";

/** Page of the run-up. Results of a run-up show on the first page once it is read. */
export type RunUpPage =
  | { name: "sources" }
  | { name: "monitor"; practice: boolean; listening: Listening }
  | { name: "file" }
  /** `known`: values of an incomplete trace, for a pilot who enters the rest. */
  | { name: "by hand"; known?: ManualValues }
  | { name: "procedure"; procedure: Exclude<Procedure, "clear"> };

/** Emergency card shown, its side, and whether it is practice. */
export interface EmergencyCard {
  id: Emergency;
  side?: "right" | "left";
  practice: boolean;
}

export interface RunUpState {
  page: RunUpPage;
  /** Emergency card over the page, or the list of them. */
  emergency?: EmergencyCard | "list";
  /** Counts the measurements, so that each begins afresh. */
  round: number;
  /** In practice: the learner's answer. */
  guess?: string;
}

export type RunUpStep =
  | { type: "source"; source: "live" | "practice" | "file" | "typed" }
  | { type: "procedure"; procedure: Procedure }
  | { type: "back" }
  /** The measurement was read, or ended without a trace. */
  | { type: "measured" }
  | { type: "clear the plug"; practice: boolean }
  | { type: "another run-up" }
  | { type: "complete by hand"; known: ManualValues }
  | { type: "enter again" }
  | { type: "guess"; guess: string }
  | { type: "emergency"; card: EmergencyCard | "list" }
  | { type: "emergency over" };

export const FIRST_PAGE: RunUpState = { page: { name: "sources" }, round: 0 };

const SOURCES: Record<Extract<RunUpStep, { type: "source" }>["source"], RunUpPage> = {
  live: { name: "monitor", practice: false, listening: "run-up" },
  practice: { name: "monitor", practice: true, listening: "run-up" },
  file: { name: "file" },
  typed: { name: "by hand" },
};

/** Next state of the run-up's pages. An emergency card covers a page and leaves it as it is. */
export function runUpPages(state: RunUpState, step: RunUpStep): RunUpState {
  const next = state.round + 1;
  switch (step.type) {
    case "source":
      return { ...state, page: SOURCES[step.source] };
    case "procedure":
      return { ...state, round: next, page: pageOfProcedure(step.procedure) };
    case "back":
    case "measured":
      return { ...state, page: { name: "sources" } };
    case "clear the plug":
      return {
        ...state,
        round: next,
        page: { name: "monitor", practice: step.practice, listening: "after clearing" },
      };
    case "another run-up": {
      const { guess: _, ...rest } = state;
      return { ...rest, round: next, page: { name: "sources" } };
    }
    case "complete by hand":
      return { ...state, page: { name: "by hand", known: step.known } };
    case "enter again":
      return state.page.name === "by hand" ? state : { ...state, page: { name: "by hand" } };
    case "guess":
      return { ...state, guess: step.guess };
    case "emergency":
      return { ...state, emergency: step.card };
    case "emergency over": {
      const { emergency: _, ...rest } = state;
      return rest;
    }
  }
}

const pageOfProcedure = (procedure: Procedure): RunUpPage =>
  procedure === "clear"
    ? { name: "monitor", practice: false, listening: "clearing alone" }
    : { name: "procedure", procedure };
