import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { type FoldedPreflight, foldIncrementally } from "@cravix/core/checklist/stream/fold-preflight";
import { createSelector, createSlice, type PayloadAction } from "@reduxjs/toolkit";

/** An unfinished preflight on this device. */
export interface OpenPreflight {
  preflightId: string;
  registration: string;
  /** Signed to fly; after-flight checks are open. */
  flying?: boolean;
}

export interface PreflightSliceState {
  id: string | null;
  list: ComposedList | null;
  events: PreflightEvent[];
  /** Events not stored yet, of any stream. */
  unkept: PreflightEvent[];
  keepError: string | null;
  open: OpenPreflight[];
}

/** Adds events that are missing. */
function withMore(events: PreflightEvent[], more: readonly PreflightEvent[]): PreflightEvent[] {
  const known = new Set(events.map((event) => event.id));
  const fresh = more.filter((event) => !known.has(event.id));
  return fresh.length > 0 ? [...events, ...fresh] : events;
}

const initialState: PreflightSliceState = {
  id: null,
  list: null,
  events: [],
  unkept: [],
  keepError: null,
  open: [],
};

export const preflightSlice = createSlice({
  name: "preflight",
  initialState,
  reducers: {
    preflightOpened: (
      state,
      { payload }: PayloadAction<{ id: string; list: ComposedList; events: PreflightEvent[] }>,
    ) => {
      state.id = payload.id;
      state.list = payload.list;
      // Events recorded meanwhile and not stored yet must not be lost.
      const unkept = state.unkept.filter((e) => e.streamId === payload.id);
      state.events = withMore(payload.events, unkept);
    },
    eventsRecorded: (state, { payload }: PayloadAction<PreflightEvent[]>) => {
      for (const event of payload) {
        if (event.streamId === state.id) state.events.push(event);
        state.unkept.push(event);
      }
    },
    /** Events already stored: from another window or device, or stored before display. */
    eventsSeen: (state, { payload }: PayloadAction<PreflightEvent[]>) => {
      const own = payload.filter((event) => event.streamId === state.id);
      if (own.length > 0) state.events = withMore(state.events, own);
    },
    eventsKept: (state, { payload }: PayloadAction<string[]>) => {
      const kept = new Set(payload);
      state.unkept = state.unkept.filter(({ id }) => !kept.has(id));
      if (state.unkept.length === 0) state.keepError = null;
    },
    keepFailed: (state, { payload }: PayloadAction<string>) => {
      state.keepError = payload;
    },
    openPreflightsKnown: (state, { payload }: PayloadAction<OpenPreflight[]>) => {
      state.open = payload;
    },
  },
});

export const { preflightOpened, eventsRecorded, eventsSeen, eventsKept, keepFailed, openPreflightsKnown } =
  preflightSlice.actions;

type WithPreflight = { preflight: PreflightSliceState };

/** The last fold of each open checklist, which the next one continues. */
const folds = new WeakMap<ComposedList, FoldedPreflight>();

/** The current preflight, folded incrementally. */
export const selectPreflight = createSelector(
  [
    (state: WithPreflight) => state.preflight.id,
    (state: WithPreflight) => state.preflight.list,
    (state: WithPreflight) => state.preflight.events,
  ],
  (id, list, events) => {
    if (!id || !list) return null;
    const folded = foldIncrementally(folds.get(list), id, events);
    folds.set(list, folded);
    return { list, state: folded.state };
  },
);
