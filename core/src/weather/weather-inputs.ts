import type { Forecast, WeatherReport } from "./report";

/** From where a report came onto the device. */
export const WEATHER_FROM = ["typed", "station"] as const;
export type WeatherFrom = (typeof WEATHER_FROM)[number];

/** What the ground of grass and paved runways can be like. */
export const RUNWAY_CONDITIONS = ["dry", "wet", "soft"] as const;
export type GroundState = (typeof RUNWAY_CONDITIONS)[number];

/** What was said of the weather of a flight. */
export interface WeatherInputs {
  report?: WeatherReport;
  /** What is expected, of the same field. */
  forecast?: Forecast;
  from?: WeatherFrom;
  /** Between the report's true north and the runways' magnetic, east positive, degrees. */
  variationDeg?: number;
  ground?: GroundState;
}
