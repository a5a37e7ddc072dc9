import { configureStore } from "@reduxjs/toolkit";
import { listeners } from "./listeners";
import { rootReducer } from "./root-state";
import { serverApi } from "./server/server-api";

export function createStore() {
  return configureStore({
    reducer: rootReducer,
    // The events are frozen and plain by construction; walking all of them at every tap would cost the tap.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false })
        .prepend(listeners.middleware)
        .concat(serverApi.middleware),
  });
}
