import type { Procedure } from "@cravix/core/run-up";

export const PROCEDURE_WORDS: Record<Procedure, string> = {
  "warm up": "Warm up",
  clear: "Clear a plug",
  idle: "Idle check",
  "ground lean": "Lean for ground operation",
};
