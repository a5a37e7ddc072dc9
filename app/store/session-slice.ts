import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

export interface SessionState {
  deviceId: string | null;
  crewId: string | null;
  night: boolean;
  /** Whether what the device remembers has been read. */
  ready: boolean;
}

const initialState: SessionState = { deviceId: null, crewId: null, night: false, ready: false };

/** Who holds the device, and which device it is. A login will set the crew member in place of a pick from the list. */
export const sessionSlice = createSlice({
  name: "session",
  initialState,
  reducers: {
    sessionRestored: (state, { payload }: PayloadAction<Omit<SessionState, "ready">>) => ({
      ...payload,
      // Somebody was quicker than the disk: what was picked meanwhile stays picked.
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
