import type { EventHandler } from "../act";

export const fuelTold: EventHandler<"fuel.told"> = (walk, { data }) =>
  walk.put({ told: { ...walk.now.told, ...data } });
