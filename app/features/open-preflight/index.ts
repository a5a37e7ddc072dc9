/** The open preflight: its state, its actions, and the frame of its pages. */

export { FoundStep } from "./found-step";
export type { HowRead } from "./how-read";
export { ItemBlocked } from "./item-blocked";
export { type FoldedPreflight, PreflightFrame } from "./preflight-frame";
export { type LoadedPreflight, useLoadedPreflight, useVerdict } from "./use-preflight";
export { type Acts, usePreflightActions } from "./use-preflight-actions";
export { WritingFrame } from "./writing-frame";
