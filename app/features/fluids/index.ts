/** Drains, dipsticks and oil during the checklist. */

export { DrainAnswer } from "./drain-answer";
export { DrainCard } from "./drain-card";
export { FluidsPanel } from "./fluids-panel";
export { drawnReading, ReadingDrawing } from "./reading-drawing";
export { type Drain, useDrain } from "./use-drain";
