import type { DepartureInput } from "@cravix/core";
import { distanceRisk } from "@cravix/core/departure-risk";

/** Takes off some thousand times with everything a little otherwise, away from the interface. */
self.onmessage = ({ data }: MessageEvent<{ id: number; input: DepartureInput; samples: number }>) => {
  try {
    self.postMessage({ id: data.id, result: distanceRisk(data.input, "takeOff", data.samples) });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
