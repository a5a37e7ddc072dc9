import { READING } from "../../readings/reading-keys";
import { magneticWind } from "../../runways/compare-runways";
import type { WindRange } from "../../runways/worst-wind";
import { notForNow } from "../../weather/judge-report";
import type { WeatherReport } from "../../weather/report";
import type { JudgedPreflight } from "./judge";

/** The report, if it is of this field and current. */
export function currentReport({
  list,
  state,
}: Pick<JudgedPreflight, "list" | "state">): WeatherReport | undefined {
  const report = state.weather?.report;
  const now = state.lastAt ?? state.startedAt;
  return report && now && notForNow(report, now, list.airfield?.station) === undefined ? report : undefined;
}

/** Reported wind, magnetic; undefined without a current report or a known variation. */
export function reportedWind(preflight: Pick<JudgedPreflight, "list" | "state">): WindRange | undefined {
  const { wind } = currentReport(preflight) ?? {};
  const { variationDeg } = preflight.state.weather ?? {};
  if (!wind || variationDeg === undefined) return undefined;
  const { gustKt, ...mean } = magneticWind(wind, variationDeg);
  // Older records may hold an invalid gust, which must not break the page.
  return { ...mean, ...(gustKt !== undefined && gustKt >= mean.kt && { gustKt }) };
}

/**
 * Governing wind: from the windsock, else the report. A windsock read without a gust does not rule out the gusts that the station
 * measured.
 */
export function windNow(preflight: JudgedPreflight): WindRange | undefined {
  const fromDeg = preflight.value(READING.windFrom);
  const kt = preflight.value(READING.windSpeed);
  const reported = reportedWind(preflight);
  if (fromDeg === undefined || kt === undefined) return reported;
  const gustKt = Math.max(preflight.value(READING.windGust) ?? 0, reported?.gustKt ?? 0);
  return { fromDeg, kt, ...(gustKt > kt && { gustKt }) };
}
