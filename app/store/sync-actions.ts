import { createAction } from "@reduxjs/toolkit";

/** Something may have to be sent, or the network may be back. */
export const sendAgain = createAction("sync/sendAgain");
