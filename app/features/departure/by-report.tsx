import { isReadingOf, READING } from "@cravix/core/readings/reading-keys";
import { magneticWind } from "@cravix/core/runways/compare-runways";
import { formatQuantity } from "@cravix/core/units/format";
import { provenance } from "@cravix/core/weather/judge-report";
import { Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";

/** The reported value with its age, for comparison; never filled in automatically. */
export function ByReport({ preflight: { state, item } }: { preflight: LoadedPreflight }) {
  const told = state.weather;
  const report = told?.report;
  const key = item?.reading?.key;
  if (!report || !key) return null;
  const wind = report.wind && magneticWind(report.wind, told?.variationDeg ?? 0);
  const said = isReadingOf(key, READING.altimeterSetting)
    ? report.settingHpa === undefined
      ? undefined
      : `${formatQuantity({ value: report.settingHpa, unit: "hPa" })} (${formatQuantity({ value: report.settingHpa / 33.8639, unit: "inHg" })})`
    : isReadingOf(key, READING.windFrom)
      ? wind && (wind.fromDeg === undefined ? "variable" : `${Math.round(wind.fromDeg)}° magnetic`)
      : isReadingOf(key, READING.windSpeed)
        ? wind && formatQuantity({ value: wind.kt, unit: "kt" })
        : isReadingOf(key, READING.windGust)
          ? wind && (wind.gustKt ? formatQuantity({ value: wind.gustKt, unit: "kt" }) : "no gusts")
          : undefined;
  if (!said) return null;
  return (
    <Text className="text-sm text-voice" testID="by-report">
      {`Report: ${said}, ${provenance(report, new Date().toISOString()).replace(/^report of /, "")}.`}
    </Text>
  );
}
