/** Why a file was not saved: what the server said, or that it cannot be reached. */
export const notSaved = (error: object): string =>
  "reached" in error && error.reached && "message" in error
    ? String(error.message)
    : "The server cannot be reached. Your entry is saved on this device: save it again when you are online.";
