import { createAction } from "@reduxjs/toolkit";

/** Something may have to be sent, or the network may be back. */
export const sendAgain = createAction("sync/sendAgain");
/** What the disk did not take is tried again. */
export const keepAgain = createAction("sync/keepAgain");
