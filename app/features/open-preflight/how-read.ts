import type { EngineFeel } from "@cravix/core/engine/classify-drop";
import type { OilHeat } from "@cravix/core/oil/judge-oil";

/** Circumstances of a reading: how smoothly the engine ran, or oil hot or cold. */
export interface HowRead {
  feel?: EngineFeel;
  heat?: OilHeat;
}
