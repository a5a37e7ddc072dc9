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

// Layout of an almost empty page with the same stack.
export default function Layout() {
  return (
    <Provider store={store}>
      <Slot />
    </Provider>
  );
}
