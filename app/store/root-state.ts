import { combineReducers, type ThunkDispatch, type UnknownAction } from "@reduxjs/toolkit";
import { fleetSlice } from "./fleet-slice";
import { plannedSlice } from "./planned-slice";
import { preflightSlice } from "./preflight-slice";
import { sessionSlice } from "./session-slice";
import { syncSlice } from "./sync-slice";

export const rootReducer = combineReducers({
  session: sessionSlice.reducer,
  fleet: fleetSlice.reducer,
  planned: plannedSlice.reducer,
  preflight: preflightSlice.reducer,
  sync: syncSlice.reducer,
});

export type RootState = ReturnType<typeof rootReducer>;
export type AppDispatch = ThunkDispatch<RootState, undefined, UnknownAction>;
