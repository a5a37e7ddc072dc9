import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

export interface SessionState {
  deviceId: string | null;
  crewId: string | null;
  night: boolean;
  /** True once stored state has been read. */
  ready: boolean;
}

const initialState: SessionState = { deviceId: null, crewId: null, night: false, ready: false };

/** Current crew member and device id. A sign-in will replace the selection from the list. */
export const sessionSlice = createSlice({
  name: "session",
  initialState,
  reducers: {
    sessionRestored: (state, { payload }: PayloadAction<Omit<SessionState, "ready">>) => ({
      ...payload,
      // A selection made before storage responded is kept.
      crewId: state.crewId ?? payload.crewId,
      night: state.night || payload.night,
      ready: true,
    }),
    crewPicked: (state, { payload }: PayloadAction<string>) => {
      state.crewId = payload;
    },
    nightSet: (state, { payload }: PayloadAction<boolean>) => {
      state.night = payload;
    },
  },
});

export const { sessionRestored, crewPicked, nightSet } = sessionSlice.actions;
