import type { StationPhase } from "@cravix/core";

/** The parts of a preflight in words, on paper as on the screen. */
export const PHASE_NAME: Record<StationPhase, string> = {
  papers: "Papers",
  cockpit: "Cockpit",
  lap: "Walkaround",
  fluids: "Fluids",
  board: "Board",
  "run-up": "Run-up",
  "line-up": "Line-up",
  after: "After the flight",
};
