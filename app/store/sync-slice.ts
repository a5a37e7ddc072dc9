import { createSlice, type PayloadAction } from "@reduxjs/toolkit";
import { eventsKept } from "./preflight-slice";

export interface SyncState {
  toSend: number;
  refused: { id: string; type: string; at: string; reason: string }[];
  server: "unknown" | "reached" | "not reached";
}

const initialState: SyncState = { toSend: 0, refused: [], server: "unknown" };

/** How far this device's events have come on their way to the server. */
export const syncSlice = createSlice({
  name: "sync",
  initialState,
  reducers: {
    queueKnown: (state, { payload }: PayloadAction<Pick<SyncState, "toSend" | "refused">>) => {
      Object.assign(state, payload);
    },
    serverReached: (state, { payload }: PayloadAction<boolean>) => {
      state.server = payload ? "reached" : "not reached";
    },
  },
  extraReducers: (builder) => {
    // What has just been kept waits to be sent from that moment on: the page never says sent before it is.
    builder.addCase(eventsKept, (state, { payload }) => {
      state.toSend += payload.length;
    });
  },
});

export const { queueKnown, serverReached } = syncSlice.actions;
