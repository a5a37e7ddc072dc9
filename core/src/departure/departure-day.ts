import type { Condition } from "../aircraft/aircraft-type";
import type { PilotInDate } from "../airworthiness/people/pilot-in-date";
import type { MinimaSet } from "../minima/minima";
import type { LaunchLimit } from "../performance/performance-profile";
import type { RuleSet } from "../rules/rule-set";
import type { WindRange } from "../runways/worst-wind";
import type { FlightLight } from "../weather/light";
import type { AcceptedWeather } from "../weather/present-hazards";
import type { WeatherReport } from "../weather/report";
import type { DepartureInput } from "./calculate-departure";
import type { ForecastDay } from "./judge-forecast";

/** Data of a departure. What is absent is unknown, and "not assessed" if the flight needs it. */
export interface DepartureDay {
  now: string;
  /** True if it takes off by its own engine: distances are needed. */
  powered: boolean;
  /** True for more than one engine: accelerate-stop distance is needed. */
  twin?: boolean;
  /** Present if a runway is chosen. */
  input?: DepartureInput;
  report?: WeatherReport;
  /** Weather station of the field. */
  station?: string;
  /** Weather that the type's file allows to fly in. */
  accepted?: readonly AcceptedWeather[];
  /** From take-off to landing, and the magnetic variation here, for what is forecast. */
  flight?: { from: string; to: string; variationDeg?: number };
  /** Forecast for the field and the time of the flight. */
  expected?: Pick<ForecastDay, "forecast" | "from" | "to" | "variationDeg">;
  /** Wind seen at the windsock, and the report, with the same north reference. */
  sock?: { fromDeg: number; kt: number };
  reported?: WindRange;
  /** Governing wind, if no runway is chosen yet. */
  wind?: WindRange;
  light?: { today: FlightLight; night: NonNullable<RuleSet["night"]> };
  /** Why the light is unknown. */
  whyNoLight?: string;
  conditions: readonly Condition[];
  sets: readonly MinimaSet[];
  /**
   * Set if the pilot's personal minimums and authorisation are unknown, now or when the preflight started: `sets` is without
   * them.
   */
  ownUnknown?: "so far" | "when it began";
  /** Whether the pilot is in date for this flight; absent if nobody knows. */
  pilotInDate?: PilotInDate;
  /** Fuel left on landing, minutes. */
  reserveMin?: number;
  launch?: { way: string; limit: LaunchLimit };
  /** True if the launch has wind limits and the launch method is not chosen. */
  launchUnknown?: boolean;
  /** Later hours with their forecast temperatures. */
  cooler?: readonly { at: string; celsius: number }[];
}
