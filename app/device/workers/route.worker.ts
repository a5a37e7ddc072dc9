// By its own door: the worker carries the search, not the whole core.
import { bestOrder, type OrderProblem } from "@cravix/core/best-order";

/** Searches the order of a lap away from the interface: sixteen stations are half a million ways to stand. */
self.onmessage = ({ data }: MessageEvent<{ id: number; problem: OrderProblem }>) => {
  try {
    self.postMessage({ id: data.id, result: bestOrder(data.problem) });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
