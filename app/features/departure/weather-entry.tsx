import type { Airfield } from "@cravix/core/aircraft/aircraft-type";
import { forecastLines } from "@cravix/core/departure/judge-forecast";
import { variationDeg } from "@cravix/core/runways/variation";
import { capital, formatNumber, formatQuantity } from "@cravix/core/units/format";
import { carburettorIcing, cloudBaseFt, fieldAir, ICING_WORDS } from "@cravix/core/weather/air-today";
import { notForNow, provenance, reportLines, weatherHints } from "@cravix/core/weather/judge-report";
import {
  groupsOfText,
  type ReadWeather,
  readForecast,
  readReport,
  readWeather,
  weatherFor,
} from "@cravix/core/weather/read-weather";
import type { Forecast, WeatherReport } from "@cravix/core/weather/report";
import type { WeatherInputs } from "@cravix/core/weather/weather-inputs";
import { useState } from "react";
import { View } from "react-native";
import { useFetchWeatherMutation } from "../../store/server/records-api";
import { Button } from "../../ui/input/button";
import { TextField } from "../../ui/input/text-field";
import { Text } from "../../ui/text";
import { ReportGroups } from "./report-groups";

/** Message of a ReportError; other errors are rethrown. */
function wordsOf(error: unknown): string {
  if (error instanceof Error && ["ReportError", "QuantityError"].includes(error.name)) return error.message;
  throw error;
}

/** Magnetic variation at a field; undefined without coordinates, or on a date the model does not cover. */
function localVariation(field: Airfield | undefined, at: string): number | undefined {
  if (field?.lat === undefined || field.lon === undefined) return undefined;
  try {
    return Math.round(variationDeg({ lat: field.lat, lon: field.lon }, at) * 10) / 10;
  } catch (error) {
    if ((error as Error).name === "QuantityError") return undefined;
    throw error;
  }
}

/** What else was in a pasted text, one line each: reports not taken, and texts that are none. */
function othersIn(
  { reports, forecasts, faults }: ReadWeather,
  taken: Pick<WeatherInputs, "report" | "forecast">,
): string[] {
  return [
    ...reports
      .filter(({ report }) => report !== taken.report)
      .map(({ report }) => `${report.station}, ${report.at.slice(11, 16)} UTC: ${report.raw}`),
    ...forecasts
      .filter(({ forecast }) => forecast !== taken.forecast)
      .map(({ forecast }) => `${forecast.station}, forecast: ${forecast.raw}`),
    ...faults.map(({ text, why }) => `${text.slice(0, 60)}: ${why}`),
  ];
}

/** A report typed, pasted or fetched from the field's station, decoded, with its age and raw text. */
export function WeatherEntry({
  field,
  label = "METAR or TAF, typed or pasted",
  told,
  now,
  flight,
  onTold,
}: {
  field: Airfield | undefined;
  /** Name of the field, if there are two. */
  label?: string;
  told: WeatherInputs | undefined;
  now: string;
  /** Period the forecast is shown for. */
  flight: { from: string; to: string };
  /** `others`: lines for what else was in the text. */
  onTold: (told: WeatherInputs, others: readonly string[]) => void;
}) {
  const [text, setText] = useState("");
  const [fault, setFault] = useState<string>();
  const [askStation, { isLoading: fetching }] = useFetchWeatherMutation();
  const [others, setOthers] = useState<string[]>([]);
  const take = (
    said: Pick<WeatherInputs, "report" | "forecast">,
    from: WeatherInputs["from"],
    at: string,
    left: string[] = [],
  ) => {
    const variation = localVariation(field, at);
    const { variationDeg: _before, ...rest } = told ?? {};
    onTold(
      {
        ...rest,
        ...said,
        ...(from && { from }),
        ...(variation !== undefined && { variationDeg: variation }),
      },
      left,
    );
    setFault(undefined);
    setText("");
    setOthers(left);
  };
  const typed = () => {
    try {
      const read = readWeather(text, now);
      const { report, forecast } = weatherFor(read, field?.station);
      const [first] = read.faults;
      const at = report?.at ?? forecast?.from;
      if (at === undefined) {
        setFault(first?.why ?? "No report found. Check the text.");
        return;
      }
      const taken = { ...(report && { report }), ...(forecast && { forecast }) };
      take(taken, "typed", at, othersIn(read, taken));
    } catch (error) {
      setFault(wordsOf(error));
    }
  };
  const fetchIt = async () => {
    if (!field?.station) return;
    const { data, error } = await askStation(field.station);
    if (!data) {
      setFault(
        error && "reached" in error && error.reached
          ? error.message
          : "No network: type or paste the report.",
      );
      return;
    }
    try {
      const read = readReport(data.report.text, now);
      take({ report: read, forecast: readForecast(data.forecast.text, now) }, "station", read.at);
    } catch (failed) {
      setFault(wordsOf(failed));
    }
  };
  return (
    <View className="gap-2">
      <TextField
        label={label}
        value={text}
        onChange={(value) => {
          setText(value);
          setFault(undefined);
        }}
        maxLength={8000}
        multiline
        placeholder={`METAR ${field?.station ?? "QXMP"} 271350Z 25012KT 9999 …`}
        fault={fault}
      />
      <View className="flex-row flex-wrap gap-2">
        <Button
          className="px-5"
          textClassName="text-base"
          disabled={text.trim() === ""}
          testID="read-report"
          onPress={typed}
        >
          Decode report
        </Button>
        {field?.station && (
          <Button
            className="px-5"
            textClassName="text-base"
            disabled={fetching}
            testID="from-station"
            onPress={() => void fetchIt()}
          >
            {fetching ? "Fetching …" : `Fetch from ${field.station}`}
          </Button>
        )}
      </View>
      {told?.report && (
        <ReadOut report={told.report} field={field} now={now} simulated={told.from === "station"} />
      )}
      {told?.forecast && <ForecastOut forecast={told.forecast} flight={flight} />}
      {others.length > 0 && (
        <View className="gap-1" testID="other-reports">
          <Text className="font-mid">Also in the text, not used here:</Text>
          {others.map((line) => (
            <Text key={line} className="text-xs text-voice">
              {line}
            </Text>
          ))}
        </View>
      )}
    </View>
  );
}

/** Forecast for the time of the flight. */
function ForecastOut({ forecast, flight }: { forecast: Forecast; flight: { from: string; to: string } }) {
  return (
    <View className="gap-1" testID="forecast">
      <Text className="font-mid">
        {`Forecast for ${forecast.station}, ${flight.from.slice(11, 16)} to ${flight.to.slice(11, 16)} UTC`}
      </Text>
      {forecastLines(forecast, flight.from, flight.to).map(({ what, words }) => (
        <View key={what + words} className="flex-row gap-3">
          <Text className="w-32 shrink-0 text-sm text-voice">{what}</Text>
          <Text className="shrink">{words}</Text>
        </View>
      ))}
      {forecast.unread.length > 0 && (
        <Text className="font-mid text-clay">{`Not understood, read it yourself: ${forecast.unread.join(" ")}`}</Text>
      )}
      <ReportGroups groups={groupsOfText(forecast.raw, forecast.issuedAt)} title="The forecast as it came" />
    </View>
  );
}

function ReadOut({
  report,
  field,
  now,
  simulated,
}: {
  report: WeatherReport;
  field: Airfield | undefined;
  now: string;
  simulated: boolean;
}) {
  const from = provenance(report, now);
  const old = notForNow(report, now, field?.station) !== undefined;
  return (
    <View className="gap-1" testID="report">
      <Text
        className={`font-mid ${old ? "text-clay" : ""}`}
      >{`${capital(from)}${simulated ? " (simulated station)" : ""}`}</Text>
      {reportLines(report).map(({ what, words }) => (
        <View key={what} className="flex-row gap-3">
          <Text className="w-32 shrink-0 text-sm text-voice">{what}</Text>
          <Text className="shrink">{words}</Text>
        </View>
      ))}
      {/* Of another station or hour, nothing is calculated for this field. */}
      {!old &&
        derived(report, field).map((line) => (
          <Text key={line} className="text-sm">
            {line}
          </Text>
        ))}
      {!old &&
        weatherHints(report).map((hint) => (
          <Text key={hint} className="font-mid">
            {hint}
          </Text>
        ))}
      {report.unread.length > 0 && (
        <Text className="font-mid text-clay">{`Not understood, read it yourself: ${report.unread.join(" ")}`}</Text>
      )}
      <ReportGroups groups={groupsOfText(report.raw, report.at)} title="The report as it came" />
    </View>
  );
}

function derived(
  { celsius, dewPointC, settingHpa, clouds }: WeatherReport,
  field: Airfield | undefined,
): string[] {
  const lines: string[] = [];
  if (celsius !== undefined && settingHpa !== undefined && field) {
    const air = fieldAir(settingHpa, field.elevationFt, celsius, dewPointC);
    lines.push(
      `Pressure altitude ${formatNumber(air.pressureAltitudeFt)} ft, density altitude ${formatQuantity({ value: air.densityAltitudeFt, unit: "ft" })}; field elevation ${formatNumber(field.elevationFt)} ft.`,
    );
  }
  if (celsius !== undefined && dewPointC !== undefined) {
    lines.push(`${ICING_WORDS[carburettorIcing(celsius, dewPointC)]}`);
    if (clouds.length === 0)
      lines.push(
        `Estimated cumulus base: ${formatNumber(Math.round(cloudBaseFt(celsius, dewPointC) / 100) * 100)} ft above the field.`,
      );
  }
  return lines;
}
