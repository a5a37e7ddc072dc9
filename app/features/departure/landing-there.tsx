import type { Airfield } from "@cravix/core/aircraft/aircraft-type";
import {
  calculateDeparture,
  type Departure,
  type DepartureInput,
} from "@cravix/core/departure/calculate-departure";
import { distanceText } from "@cravix/core/departure/departure-text";
import { compareRunways, magneticWind } from "@cravix/core/runways/compare-runways";
import type { WindRange } from "@cravix/core/runways/worst-wind";
import { formatNumber } from "@cravix/core/units/format";
import { forecastAt } from "@cravix/core/weather/forecast-at";
import { notForNow } from "@cravix/core/weather/judge-report";
import type { Forecast, WeatherReport } from "@cravix/core/weather/report";
import type { WeatherInputs } from "@cravix/core/weather/weather-inputs";
import { useMemo } from "react";
import { View } from "react-native";
import { Alert } from "../../ui/alert";
import { clockText } from "../../ui/day-and-time";
import { GradeMark } from "../../ui/grade-mark";
import { Heading, Text } from "../../ui/text";
import { WeatherEntry } from "./weather-entry";

/** Temperature lapse per thousand feet: standard atmosphere. */
const LAPSE_C_PER_1000_FT = 1.98;

/**
 * Landing at the destination on each runway, with the expected landing mass and that field's reported or forecast wind, best
 * runway first; still air without a report. Surfaces are assumed wet, as their condition is unknown.
 */
export function LandingThere({
  input,
  to,
  told,
  now,
  arrival,
  onTold,
}: {
  input: DepartureInput | undefined;
  to: Airfield;
  told: WeatherInputs | undefined;
  now: string;
  arrival: string;
  onTold: (told: WeatherInputs) => void;
}) {
  const notUsed = told?.report && notForNow(told.report, now, to.station);
  const unusable = told?.forecast && forecastUnusable(told.forecast, to, arrival);
  // An outdated report, or one of another field, says nothing about the wind there.
  const usable = told?.report && notUsed === undefined ? told : undefined;
  const wind = useMemo(() => windThere(told, usable, arrival, to), [told, usable, arrival, to]);
  const { rows, why } = useMemo(
    () => landings(input, to, { wind: wind?.wind, report: usable?.report }),
    [input, to, wind, usable],
  );
  if (rows.length === 0) return null;
  // A reason common to all runways is shown once.
  const missing = rows.every(({ there }) => !there.landing) ? rows[0]?.there.missing[0]?.why : undefined;
  return (
    <View className="gap-1.5" testID="landing-there">
      <Heading className="text-lg">{`Landing at ${to.name}, ${formatNumber(to.elevationFt)} ft`}</Heading>
      {notUsed && <Alert>{`${notUsed} It is not used in the calculation.`}</Alert>}
      {unusable && <Alert>{`${unusable} It is not used in the calculation.`}</Alert>}
      {why && <Text className="font-mid">{why}</Text>}
      {missing && <Text>{missing}</Text>}
      {rows.map(({ runway, there: { landing, missing: own, wind: on } }) => (
        <View key={runway.id} className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark
              grade={!landing ? "unjudged" : landing.leftM < 0 ? "stop" : "within limits"}
              size={20}
            />
          </View>
          <Text className={`shrink ${landing && landing.leftM < 0 ? "text-clay" : ""}`}>
            {`${runway.id}: ${landing ? distanceText("Landing", landing).replace(/^Landing /, "") : missing ? "not calculated." : (own[0]?.why ?? "not calculated.")}${on ? windText(on) : ""}`}
          </Text>
        </View>
      ))}
      <Text className="text-sm text-voice">
        {wind
          ? `${wind.of}, at landing mass, wet runway. The wind may have changed by then: check the windsock.`
          : "No wind, wet runway, temperature here corrected for the difference in elevation. Enter that field's weather report to compare its runways."}
      </Text>
      <WeatherEntry
        field={to}
        label={`METAR or TAF for ${to.name}`}
        told={told}
        now={now}
        flight={aroundLanding(arrival)}
        onTold={onTold}
      />
    </View>
  );
}

const windText = ({ alongKt, tailKt, crossKt }: NonNullable<Departure["wind"]>) =>
  ` ${tailKt > 0.5 ? `${formatNumber(tailKt)} kt tailwind` : `${formatNumber(Math.max(0, alongKt))} kt headwind`}, ${formatNumber(crossKt)} kt crosswind.`;

const HOUR = 3_600_000;

/** One hour before and after the planned landing. */
const aroundLanding = (arrival: string) => {
  const off = (hours: number) => new Date(Date.parse(arrival) + hours * HOUR).toISOString();
  return { from: off(-1), to: off(1) };
};

/** Why a forecast does not cover the landing; undefined if it does. */
function forecastUnusable(
  { station, from, to: until }: Forecast,
  to: Airfield,
  arrival: string,
): string | undefined {
  if (to.station && station !== to.station)
    return `The forecast is for ${station}, not for this field (${to.station}).`;
  return arrival < from || arrival > until
    ? `The forecast ends before the landing at ${clockText(arrival)}.`
    : undefined;
}

/**
 * Wind for the landing, magnetic: the strongest forecast within an hour of it, or the report if no forecast reaches that far.
 * Undefined without either, or with unknown variation.
 */
function windThere(
  told: WeatherInputs | undefined,
  usable: WeatherInputs | undefined,
  arrival: string,
  to: Airfield,
): { wind: WindRange; of: string } | undefined {
  const { forecast, variationDeg } = told ?? {};
  if (variationDeg === undefined) return undefined;
  if (forecast && !forecastUnusable(forecast, to, arrival)) {
    const { from, to: until } = aroundLanding(arrival);
    const { wind } = forecastAt(forecast, from, until).worst;
    if (wind)
      return {
        wind: magneticWind(wind, variationDeg),
        of: `Strongest wind forecast there around ${clockText(arrival)}`,
      };
  }
  const report = usable?.report;
  return (
    report?.wind && { wind: magneticWind(report.wind, variationDeg), of: "Wind from that field's report" }
  );
}

function landings(
  input: DepartureInput | undefined,
  to: Airfield,
  { wind, report }: { wind: WindRange | undefined; report: WeatherReport | undefined },
) {
  if (!input) return { rows: [] };
  const { wind: _wind, ...still } = input;
  const celsius =
    report?.celsius ??
    (input.celsius === undefined
      ? undefined
      : input.celsius - ((to.elevationFt - input.airfield.elevationFt) / 1000) * LAPSE_C_PER_1000_FT);
  const choice = wind && compareRunways(to, wind);
  const runways = choice ? choice.runways.map(({ runway }) => runway) : to.runways;
  const rows = runways.map((runway) => ({
    runway,
    there: calculateDeparture({
      ...still,
      airfield: to,
      runway,
      ...(wind && { wind }),
      ...(celsius !== undefined && { celsius }),
      ...(report?.dewPointC !== undefined && { dewPointC: report.dewPointC }),
      ...(report?.settingHpa !== undefined && { settingHpa: report.settingHpa }),
      // The condition there is unknown: grass counts as wet.
      state: "wet",
    }),
  }));
  return { rows, why: choice?.why };
}
