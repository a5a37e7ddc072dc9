import type { EventHandler } from "../event-handler";

export const fuelTold: EventHandler<"fuel.told"> = (preflight, { data }) =>
  preflight.put({ told: { ...preflight.now.told, ...data } });
