import type { Apply } from "../act";

export const fuelTold: Apply<"fuel.told"> = (walk, { data }) =>
  walk.put({ told: { ...walk.now.told, ...data } });
