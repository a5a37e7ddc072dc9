// Subpath imports keep the rest of core out of this worker.

import { type FuelPlan, simulateMargin } from "@cravix/core/fuel/margin/simulate-margin";
import { type OilEntry, oilTrend } from "@cravix/core/oil/oil-consumption";

type Question = { id: number } & (
  | { kind: "flights"; plan: FuelPlan; samples: number; seed: number }
  | { kind: "oil"; entries: OilEntry[] }
);

/** Simulates a fuel plan, or fits an oil trend, off the main thread. */
self.onmessage = ({ data }: MessageEvent<Question>) => {
  try {
    const result =
      data.kind === "flights" ? simulateMargin(data.plan, data.samples, data.seed) : oilTrend(data.entries);
    self.postMessage({ id: data.id, result });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
