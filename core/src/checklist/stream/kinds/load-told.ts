import type { EventHandler } from "../event-handler";

/** The last one counts: what was planned at home is not what is aboard once somebody has left a bag behind. */
export const loadTold: EventHandler<"load.told"> = (walk, { data }) => walk.put({ plannedLoad: data });
