import type { EventHandler } from "../event-handler";

/** A runway condition alone keeps the previous report. A reported temperature becomes today's: for battery, run-up and distances. */
export const weatherTold: EventHandler<"weather.told"> = (preflight, { at, data }) =>
  preflight.put({
    weather: { ...preflight.now.weather, ...data, at },
    ...(data.report?.celsius !== undefined && { celsius: data.report.celsius }),
  });
