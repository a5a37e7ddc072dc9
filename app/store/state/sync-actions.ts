import { createAction } from "@reduxjs/toolkit";

/** Something may be pending, or the network may be back. */
export const sendAgain = createAction("sync/sendAgain");
/** Retry storing. */
export const saveAgain = createAction("sync/keepAgain");
