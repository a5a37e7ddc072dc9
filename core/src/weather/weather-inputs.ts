import type { Forecast, WeatherReport } from "./report";

/** How a report came onto the device. */
export const WEATHER_FROM = ["typed", "station"] as const;
export type WeatherFrom = (typeof WEATHER_FROM)[number];

/** Conditions of grass and paved runways. */
export const RUNWAY_CONDITIONS = ["dry", "wet", "soft"] as const;
export type GroundState = (typeof RUNWAY_CONDITIONS)[number];

/** Weather entered for a flight. */
export interface WeatherInputs {
  report?: WeatherReport;
  /** Forecast for the same field. */
  forecast?: Forecast;
  from?: WeatherFrom;
  /** Magnetic variation, east positive, degrees. */
  variationDeg?: number;
  ground?: GroundState;
}
