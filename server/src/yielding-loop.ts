import { setImmediate as nextTurn } from "node:timers/promises";

/** Nobody else waits longer than this for what is done in one go, ms. */
const TURN_MS = 12;

/** Lets others have their turn in long work: call `pause` between its steps. */
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
