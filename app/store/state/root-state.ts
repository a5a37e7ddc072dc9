import { combineReducers, type ThunkDispatch, type UnknownAction } from "@reduxjs/toolkit";
import { plannedSlice } from "./planned-slice";
import { preflightSlice } from "./preflight-slice";
import { serverApi } from "./server-api";
import { sessionSlice } from "./session-slice";
import { syncSlice } from "./sync-slice";
import { versionSlice } from "./version-slice";

export const rootReducer = combineReducers({
  session: sessionSlice.reducer,
  planned: plannedSlice.reducer,
  preflight: preflightSlice.reducer,
  sync: syncSlice.reducer,
  server: serverApi.reducer,
  version: versionSlice.reducer,
});

export type RootState = ReturnType<typeof rootReducer>;
export type AppDispatch = ThunkDispatch<RootState, undefined, UnknownAction>;
