/** Navigation, page frames and the state of saving. */

export { InstallHint } from "./install-hint";
export { LogParts } from "./log-parts";
export { PageNotFound } from "./nothing-here";
export { PlaceFrame } from "./place-frame";
export { NotSaved, SaveStatus, STANDSTILL } from "./save-status";
export { NightSwitch } from "./shell";
