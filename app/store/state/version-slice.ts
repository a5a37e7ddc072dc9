import { createSlice } from "@reduxjs/toolkit";

/** Whether a new version of the app is waiting. */
export const versionSlice = createSlice({
  name: "version",
  initialState: { waits: false },
  reducers: {
    newVersionWaits: (state) => {
      state.waits = true;
    },
  },
});
export const { newVersionWaits } = versionSlice.actions;
