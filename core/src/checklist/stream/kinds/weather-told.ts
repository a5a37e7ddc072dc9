import type { EventHandler } from "../event-handler";

/** What is said of the ground alone leaves the report as it was. Its temperature is today's from then on: for the battery, the run-up, the distances. */
export const weatherTold: EventHandler<"weather.told"> = (walk, { at, data }) =>
  walk.put({
    weather: { ...walk.now.weather, ...data, at },
    ...(data.report?.celsius !== undefined && { celsius: data.report.celsius }),
  });
