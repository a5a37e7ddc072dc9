import {
  type Airfield,
  compareRunways,
  type Departure,
  type DepartureInput,
  distanceWords,
  formatNumber,
  judgeReport,
  magneticWind,
  reckonDeparture,
  type WeatherTold,
} from "@cravix/core";
import { useMemo } from "react";
import { View } from "react-native";
import { Alert } from "../../ui/alert";
import { GradeMark } from "../../ui/grade-mark";
import { Heading, Text } from "../../ui/text";
import { WeatherEntry } from "./weather-entry";

/** Colder by so much for each thousand feet: the standard atmosphere. */
const LAPSE_C_PER_1000_FT = 1.98;

/**
 * Whether it lands at the destination, on each of its runways, with the mass that it will have there: in the wind of a report of that field, the better runway first; in still air
 * where there is none. Wet either way: what the ground is like there nobody has seen.
 */
export function LandingThere({
  input,
  to,
  told,
  now,
  onTold,
}: {
  input: DepartureInput | undefined;
  to: Airfield;
  told: WeatherTold | undefined;
  now: string;
  onTold: (told: WeatherTold) => void;
}) {
  const judged = told?.report && judgeReport(told.report, now, to.station);
  // One of yesterday or of another field says nothing of the wind there.
  const usable = judged && judged.grade !== "ask" ? told : undefined;
  const { rows, why } = useMemo(() => landings(input, to, usable), [input, to, usable]);
  if (rows.length === 0) return null;
  // What keeps all of them from being reckoned is said once.
  const missing = rows.every(({ there }) => !there.landing) ? rows[0]?.there.missing[0]?.why : undefined;
  return (
    <View className="gap-1.5" testID="landing-there">
      <Heading className="text-lg">{`Landing at ${to.name}, ${formatNumber(to.elevationFt)} ft`}</Heading>
      {judged?.grade === "ask" && <Alert>{`${judged.sentence} Nothing is reckoned with it.`}</Alert>}
      {why && <Text className="font-mid">{why}</Text>}
      {missing && <Text>{missing}</Text>}
      {rows.map(({ runway, there: { landing, missing: own, wind } }) => (
        <View key={runway.id} className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark
              grade={!landing ? "unjudged" : landing.leftM < 0 ? "stop" : "within limits"}
              size={20}
            />
          </View>
          <Text className={`shrink ${landing && landing.leftM < 0 ? "text-clay" : ""}`}>
            {`${runway.id}: ${landing ? distanceWords("Landing", landing).replace(/^Landing /, "") : missing ? "not reckoned." : (own[0]?.why ?? "not reckoned.")}${wind ? windWords(wind) : ""}`}
          </Text>
        </View>
      ))}
      <Text className="text-sm text-voice">
        {usable
          ? "In the wind of its report, with the mass of the landing, wet. By the time you are there it may have turned: look at the sock."
          : "Still air, wet, as warm as it is here less what the height takes off. With a report from there the runway is chosen."}
      </Text>
      <WeatherEntry
        field={to}
        label={`METAR of ${to.name}`}
        told={told}
        now={now}
        onTold={({ weather }) => onTold(weather)}
      />
    </View>
  );
}

const windWords = ({ alongKt, tailKt, crossKt }: NonNullable<Departure["wind"]>) =>
  ` ${tailKt > 0.5 ? `${formatNumber(tailKt)} kt from behind` : `${formatNumber(Math.max(0, alongKt))} kt against`}, ${formatNumber(crossKt)} across.`;

function landings(input: DepartureInput | undefined, to: Airfield, told: WeatherTold | undefined) {
  if (!input) return { rows: [] };
  const { wind: _wind, ...still } = input;
  const report = told?.report;
  const wind =
    report?.wind && told?.variationDeg !== undefined
      ? magneticWind(report.wind, told.variationDeg)
      : undefined;
  const celsius =
    report?.celsius ??
    (input.celsius === undefined
      ? undefined
      : input.celsius - ((to.elevationFt - input.airfield.elevationFt) / 1000) * LAPSE_C_PER_1000_FT);
  const choice = wind && compareRunways(to, wind);
  const runways = choice ? choice.runways.map(({ runway }) => runway) : to.runways;
  const rows = runways.map((runway) => ({
    runway,
    there: reckonDeparture({
      ...still,
      airfield: to,
      runway,
      ...(wind && { wind }),
      ...(celsius !== undefined && { celsius }),
      ...(report?.dewPointC !== undefined && { dewPointC: report.dewPointC }),
      ...(report?.settingHpa !== undefined && { settingHpa: report.settingHpa }),
      // At home it is wet or not; there it is not known, and grass is taken as wet.
      state: "wet",
    }),
  }));
  return { rows, why: choice?.why };
}
