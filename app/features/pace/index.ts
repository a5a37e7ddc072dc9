/** How long each look took. */

export { PaceNote } from "./pace-note";
