import { type ComposedList, type FoldedPreflight, foldMore, type PreflightEvent } from "@cravix/core";
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
  /** Events that are not on the device's disk yet. */
  unkept: string[];
  keepError: string | null;
  open: OpenPreflight[];
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
      const unkept = state.events.filter((e) => e.preflightId === payload.id && state.unkept.includes(e.id));
      state.events = [
        ...payload.events,
        ...unkept.filter((e) => !payload.events.some((known) => known.id === e.id)),
      ];
    },
    eventsRecorded: (state, { payload }: PayloadAction<PreflightEvent[]>) => {
      for (const event of payload) {
        if (event.preflightId === state.id) state.events.push(event);
        state.unkept.push(event.id);
      }
    },
    eventsKept: (state, { payload }: PayloadAction<string[]>) => {
      state.unkept = state.unkept.filter((id) => !payload.includes(id));
      state.keepError = null;
    },
    keepFailed: (state, { payload }: PayloadAction<string>) => {
      state.keepError = payload;
    },
    openPreflightsKnown: (state, { payload }: PayloadAction<OpenPreflight[]>) => {
      state.open = payload;
    },
  },
});

export const { preflightOpened, eventsRecorded, eventsKept, keepFailed, openPreflightsKnown } =
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
    folded = foldMore(folded, id, events);
    return { list, state: folded.state };
  },
);
