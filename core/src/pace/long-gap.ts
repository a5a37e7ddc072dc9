import type { ComposedList } from "../checklist/list/compose-list";
import { phaseOf } from "../checklist/list/list-places";
import { currentItem } from "../checklist/next-item";
import type { PreflightState } from "../checklist/stream/preflight-state";

/** Minutes without an answer that suggest an interruption (common practice). */
export const LONG_GAP_MIN = 4;
/** Seconds away from the screen that are more than a glance at a message (common practice). */
export const AWAY_SECONDS = 5;

/**
 * Start of an unreported interruption, if nothing was done for long enough. `now` in milliseconds of the device clock. From the
 * run-up on, gaps do not count, since the oil has to warm up; nor do gaps before the first answer, during an interruption, or
 * after the signature. ISO 8601, undefined if there is none. Source: four minutes by common practice.
 */
export function longGapSince(list: ComposedList, state: PreflightState, now: number): string | undefined {
  const { lastAt, signed, interruptions } = state;
  if (!lastAt || signed || Object.keys(state.answers).length === 0) return undefined;
  if (interruptions.some((i) => i.resumedAt === undefined)) return undefined;
  if (now - Date.parse(lastAt) < LONG_GAP_MIN * 60_000) return undefined;
  const item = currentItem(list, state);
  if (!item || ["run-up", "line-up"].includes(phaseOf(list, item))) return undefined;
  return lastAt;
}
