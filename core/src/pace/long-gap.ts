import { type ComposedList, phaseOf } from "../checklist/list/compose-list";
import { currentItem } from "../checklist/next-item";
import type { PreflightState } from "../checklist/stream/preflight-state";

/** So long nobody looks at one thing: something came in between (common practice). */
export const LONG_GAP_MIN = 4;
/** Away from the screen for longer than this is more than a glance at a message (common practice). */
export const AWAY_SECONDS = 5;

/**
 * Since when nothing was done, where that is long enough to be an interruption nobody told of. `now` in milliseconds of the device's clock.
 * With the engine running one waits for the oil to warm, so from the run-up on a gap is no interruption; nor is one before the first answer,
 * while one is open, or after the signature. ISO 8601, undefined where there is none. Source: four minutes by common practice.
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
