import type { Procedure } from "@cravix/core/run-up";

export const PROCEDURE_WORDS: Record<Procedure, string> = {
  "warm up": "Warm up",
  clear: "Clear a plug",
  idle: "Hold the idle",
  "ground lean": "Lean for the ground",
};
