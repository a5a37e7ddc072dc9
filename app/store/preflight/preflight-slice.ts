import {
  type ComposedList,
  type FoldedPreflight,
  foldIncrementally,
  type PreflightEvent,
} from "@cravix/core";
import { createSelector, createSlice, type PayloadAction } from "@reduxjs/toolkit";

/** An unfinished preflight on this device. */
export interface OpenPreflight {
  preflightId: string;
  registration: string;
  /** Signed to fly; the aircraft has to be put away yet. */
  flying?: boolean;
}

export interface PreflightSliceState {
  id: string | null;
  list: ComposedList | null;
  events: PreflightEvent[];
  /** Events that are not on the device's disk yet, of this walk or of anything else. */
  unkept: PreflightEvent[];
  keepError: string | null;
  open: OpenPreflight[];
}

/** The same with what is not there yet. */
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
      // What was recorded for it in the meantime and is not on disk yet must not be lost.
      const unkept = state.unkept.filter((e) => e.streamId === payload.id);
      state.events = withMore(payload.events, unkept);
    },
    eventsRecorded: (state, { payload }: PayloadAction<PreflightEvent[]>) => {
      for (const event of payload) {
        if (event.streamId === state.id) state.events.push(event);
        state.unkept.push(event);
      }
    },
    /** Events that are on the disk already: from another window, another device, or kept before they were shown. */
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

let folded: FoldedPreflight | undefined;

/** The preflight on the screen, folded from its events: one more answer costs one more event. */
export const selectPreflight = createSelector(
  [
    (state: WithPreflight) => state.preflight.id,
    (state: WithPreflight) => state.preflight.list,
    (state: WithPreflight) => state.preflight.events,
  ],
  (id, list, events) => {
    if (!id || !list) return null;
    folded = foldIncrementally(folded, id, events);
    return { list, state: folded.state };
  },
);
