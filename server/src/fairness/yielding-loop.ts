import { setImmediate as nextTurn } from "node:timers/promises";

/** Maximum time per event-loop turn, ms. */
const TURN_MS = 12;

/** Yields to other work: call `pause` between steps. */
export function yieldingLoop(): { pause(): Promise<void> } {
  let from = performance.now();
  return {
    async pause() {
      if (performance.now() - from < TURN_MS) return;
      await nextTurn();
      from = performance.now();
    },
  };
}
