import type { Apply } from "../act";

/** What is said of the ground alone leaves the report as it was. */
export const weatherTold: Apply<"weather.told"> = (walk, { at, data }) =>
  walk.put({ weather: { ...walk.now.weather, ...data, at } });
