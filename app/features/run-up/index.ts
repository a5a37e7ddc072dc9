/** The run-up as shown during the checklist. Its pages are loaded with the preflight. */

export { RunUpPanel } from "./run-up-panel";
