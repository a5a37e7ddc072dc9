import "../global.css";
import { configureStore, createSlice } from "@reduxjs/toolkit";
import { Slot } from "expo-router";
import { Provider } from "react-redux";

const counter = createSlice({
  name: "counter",
  initialState: { count: 0 },
  reducers: {
    counted: (state) => {
      state.count += 1;
    },
  },
});
const store = configureStore({ reducer: { counter: counter.reducer } });

// What the almost empty page of the same stack has round it.
export default function Layout() {
  return (
    <Provider store={store}>
      <Slot />
    </Provider>
  );
}
