import type { AircraftBundle } from "@cravix/contract/client";
import { airfield, qxTar, rules, tarrow4 } from "@cravix/demo";

/** The trainer on a device without any history. */
export const trainerBundle: AircraftBundle = {
  aircraft: qxTar,
  type: tarrow4,
  airfield,
  fields: [airfield],
  rules,
  openDiscrepancies: [],
  lastReadings: [],
  recentPreflights: [],
  papers: null,
  loading: null,
  equipment: null,
  fluids: [],
  memory: [],
  walks: [],
  laps: {},
};
