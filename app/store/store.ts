import { configureStore } from "@reduxjs/toolkit";
import { fleetSlice } from "./fleet-slice";
import { listeners } from "./listeners";
import { preflightSlice } from "./preflight-slice";
import { sessionSlice } from "./session-slice";
import { syncSlice } from "./sync-slice";

export function createStore() {
  return configureStore({
    reducer: {
      session: sessionSlice.reducer,
      fleet: fleetSlice.reducer,
      preflight: preflightSlice.reducer,
      sync: syncSlice.reducer,
    },
    // The events are frozen and plain by construction; walking all of them at every tap would cost the tap.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).prepend(listeners.middleware),
  });
}

export type AppStore = ReturnType<typeof createStore>;
export type RootState = ReturnType<AppStore["getState"]>;
export type AppDispatch = AppStore["dispatch"];
