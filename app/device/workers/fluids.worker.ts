// By their own doors: the worker carries these two, not the whole core.
import { type OilEntry, oilTrend } from "@cravix/core/oil-consumption";
import { type FuelPlan, simulateMargin } from "@cravix/core/simulate-margin";

type Question = { id: number } & (
  | { kind: "flights"; plan: FuelPlan; samples: number; seed: number }
  | { kind: "oil"; entries: OilEntry[] }
);

/** Flies a plan some thousand times, or lays a line through years of oil, away from the interface. */
self.onmessage = ({ data }: MessageEvent<Question>) => {
  try {
    const result =
      data.kind === "flights" ? simulateMargin(data.plan, data.samples, data.seed) : oilTrend(data.entries);
    self.postMessage({ id: data.id, result });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
