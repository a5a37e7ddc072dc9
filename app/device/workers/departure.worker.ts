import type { DepartureInput } from "@cravix/core/departure/calculate-departure";
import { distanceRisk } from "@cravix/core/departure/departure-risk";

/** Simulates take-offs off the main thread. */
self.onmessage = ({ data }: MessageEvent<{ id: number; input: DepartureInput; samples: number }>) => {
  try {
    self.postMessage({ id: data.id, result: distanceRisk(data.input, "takeOff", data.samples) });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
