import type { EventHandler } from "../event-handler";

/** The last load counts and replaces the planned one. */
export const loadTold: EventHandler<"load.told"> = (preflight, { data }) =>
  preflight.put({ plannedLoad: data });
