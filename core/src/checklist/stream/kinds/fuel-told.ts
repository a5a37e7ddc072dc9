import type { EventHandler } from "../event-handler";

export const fuelTold: EventHandler<"fuel.told"> = (walk, { data }) =>
  walk.put({ told: { ...walk.now.told, ...data } });
