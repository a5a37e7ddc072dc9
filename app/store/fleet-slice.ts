import type { AircraftBundle, Fleet } from "@cravix/contract";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

export interface FleetState {
  fleet: Fleet | null;
  bundles: Record<string, AircraftBundle>;
}

const initialState: FleetState = { fleet: null, bundles: {} };

/** What the server said last of the group's aircraft; kept on the device as well. */
export const fleetSlice = createSlice({
  name: "fleet",
  initialState,
  reducers: {
    fleetKnown: (state, { payload }: PayloadAction<Fleet>) => {
      state.fleet = payload;
    },
    bundleKnown: (state, { payload }: PayloadAction<AircraftBundle>) => {
      state.bundles[payload.aircraft.registration] = payload;
    },
  },
});

export const { fleetKnown, bundleKnown } = fleetSlice.actions;
