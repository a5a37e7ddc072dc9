import { configureStore } from "@reduxjs/toolkit";
import { listeners } from "./listeners";
import { rootReducer } from "./state/root-state";
import { serverApi } from "./state/server-api";

export function createStore() {
  return configureStore({
    reducer: rootReducer,
    // Events are frozen plain objects; checking all of them on every action would be slow.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false })
        .prepend(listeners.middleware)
        .concat(serverApi.middleware),
  });
}
