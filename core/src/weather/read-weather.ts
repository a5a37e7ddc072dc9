import type { ReadGroup } from "./code/group-rule";
import { splitReports } from "./code/split-reports";
import { type ReadForecast, readForecastGroups } from "./read-forecast";
import { type ReadReport, readReportGroups } from "./read-report";

export type { GroupStatus, ReadGroup } from "./code/group-rule";
export { readForecast } from "./read-forecast";
export { readReport } from "./read-report";

import { type Forecast, ReportError, type WeatherReport } from "./report";

/** Everything in a pasted text. */
export interface ReadWeather {
  reports: ReadReport[];
  forecasts: ReadForecast[];
  /** Texts that are neither, with the reason. */
  faults: { text: string; why: string }[];
}

const PERIOD = /^\d{4}\/\d{4}$/;

/** True if the groups are those of a forecast. */
const isForecast = (groups: readonly string[]) =>
  groups[0] === "TAF" ||
  (groups[0] !== "METAR" && groups[0] !== "SPECI" && groups.slice(0, 5).some((group) => PERIOD.test(group)));

/**
 * Decodes all reports and forecasts of a text, each on its own: one that cannot be read does not affect the others. Throws
 * ReportError for an empty text, and for one that is too long. Complexity: O(groups). Source: as `readReport`, `readForecast`.
 */
export function readWeather(text: string, now: string): ReadWeather {
  const found: ReadWeather = { reports: [], forecasts: [], faults: [] };
  for (const groups of splitReports(text))
    try {
      if (isForecast(groups)) found.forecasts.push(readForecastGroups(groups, now));
      else found.reports.push(readReportGroups(groups, now));
    } catch (error) {
      if (!(error instanceof ReportError)) throw error;
      found.faults.push({ text: groups.join(" "), why: error.message });
    }
  return found;
}

/** Latest of several: that of the station if there is one. */
function best<T>(
  all: readonly T[],
  of: (one: T) => { station: string; at: string },
  station: string | undefined,
) {
  const here = all.filter((one) => of(one).station === station);
  return [...(here.length > 0 ? here : all)].sort((a, b) => (of(a).at < of(b).at ? 1 : -1))[0];
}

/** The report and the forecast for a field, the latest of each; those of other stations only if it has none. */
export function weatherFor(
  { reports, forecasts }: Pick<ReadWeather, "reports" | "forecasts">,
  station: string | undefined,
): { report?: WeatherReport; forecast?: Forecast } {
  const report = best(reports, (one) => one.report, station)?.report;
  const forecast = best(
    forecasts,
    ({ forecast: { station: place, issuedAt } }) => ({ station: place, at: issuedAt }),
    station,
  )?.forecast;
  return { ...(report && { report }), ...(forecast && { forecast }) };
}

/** Meaning of each group of a report or forecast on record; empty for a text that cannot be read any more. */
export function groupsOfText(raw: string, at: string): ReadGroup[] {
  try {
    const { reports, forecasts } = readWeather(raw, at);
    return (reports[0] ?? forecasts[0])?.groups ?? [];
  } catch (error) {
    if (error instanceof ReportError) return [];
    throw error;
  }
}
