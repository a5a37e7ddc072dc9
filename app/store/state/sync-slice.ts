import { createSlice, type PayloadAction } from "@reduxjs/toolkit";
import { eventsKept } from "./preflight-slice";

/** Result of the last contact with the server. */
export type ServerStatus = "unknown" | "reached" | "not reached" | "sign in" | "not allowed" | "busy";

export interface Refused {
  id: string;
  type: string;
  at: string;
  reason: string;
  /** Field that caused the rejection. */
  field?: string;
}

export interface SyncState {
  toSend: number;
  refused: Refused[];
  server: ServerStatus;
  /** Number of drafts not stored yet. */
  draftsWaiting: number;
}

const initialState: SyncState = { toSend: 0, refused: [], server: "unknown", draftsWaiting: 0 };

/** Sync state of this device's events. */
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
    // Stored events count as unsent from that moment on: the page never says sent too early.
    builder.addCase(eventsKept, (state, { payload }) => {
      state.toSend += payload.length;
    });
  },
});

export const { queueKnown, serverReached, serverMet, draftsWait } = syncSlice.actions;
