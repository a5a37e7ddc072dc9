// Subpath import keeps the rest of core out of this worker.
import { bestOrder, type OrderProblem } from "@cravix/core/route/best-order";

/** Searches walkaround orders off the main thread: sixteen stations have half a million states. */
self.onmessage = ({ data }: MessageEvent<{ id: number; problem: OrderProblem }>) => {
  try {
    self.postMessage({ id: data.id, result: bestOrder(data.problem) });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
