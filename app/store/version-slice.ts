import { createSlice } from "@reduxjs/toolkit";

/** Whether a new version of the interface is on the device and waits to be used. */
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
