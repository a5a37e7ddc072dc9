import type { StationPhase } from "@cravix/core/aircraft/aircraft-type";

/** Phase names, on paper and on screen. */
export const PHASE_NAME: Record<StationPhase, string> = {
  papers: "Documents",
  cockpit: "Cockpit",
  lap: "Walkaround",
  fluids: "Fuel and oil",
  board: "Boarding",
  "run-up": "Run-up",
  "line-up": "Line-up",
  after: "After the flight",
};
