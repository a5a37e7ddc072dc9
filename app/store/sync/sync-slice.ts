import { createSlice, type PayloadAction } from "@reduxjs/toolkit";
import { eventsKept } from "../preflight/preflight-slice";

/** How the server was met last: there, or why nothing goes out. */
export type ServerStatus = "unknown" | "reached" | "not reached" | "sign in" | "not allowed" | "busy";

export interface Refused {
  id: string;
  type: string;
  at: string;
  reason: string;
  /** The field that it was refused for. */
  field?: string;
}

export interface SyncState {
  toSend: number;
  refused: Refused[];
  server: ServerStatus;
  /** Drafts that this device's disk has not taken yet. */
  draftsWaiting: number;
}

const initialState: SyncState = { toSend: 0, refused: [], server: "unknown", draftsWaiting: 0 };

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
    serverMet: (state, { payload }: PayloadAction<ServerStatus>) => {
      state.server = payload;
    },
    draftsWait: (state, { payload }: PayloadAction<number>) => {
      state.draftsWaiting = payload;
    },
  },
  extraReducers: (builder) => {
    // What has just been kept waits to be sent from that moment on: the page never says sent before it is.
    builder.addCase(eventsKept, (state, { payload }) => {
      state.toSend += payload.length;
    });
  },
});

export const { queueKnown, serverReached, serverMet, draftsWait } = syncSlice.actions;
