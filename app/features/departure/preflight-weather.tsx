import { provenance } from "@cravix/core/weather/judge-report";
import { RUNWAY_CONDITIONS } from "@cravix/core/weather/weather-inputs";
import { useState } from "react";
import { View } from "react-native";
import { record } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Button } from "../../ui/input/button";
import { Choice } from "../../ui/input/choice";
import { JudgementCard } from "../../ui/judgement-card";
import { Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";
import { WeatherEntry } from "./weather-entry";

/** Assumed minutes of a flight without a planned length. */
const USUAL_MIN = 60;

/** At the holding point: the report with its age, a newer one, runway condition, and everything recalculated with the dipped fuel. */
export function PreflightWeather({ preflight }: { preflight: LoadedPreflight }) {
  const dispatch = useAppDispatch();
  const [open, setOpen] = useState(false);
  const { list, state, judged } = preflight;
  const now = new Date().toISOString();
  const landing = new Date(Date.parse(now) + (state.plannedFlightMin ?? USUAL_MIN) * 60_000).toISOString();
  const made = judged.judgements.filter(({ judge }) => judge === "departure");
  const report = state.weather?.report;
  return (
    <View className="gap-2" testID="preflight-weather">
      {report && !open && (
        <Text className="text-sm text-voice">{`From the ${provenance(report, now)}.`}</Text>
      )}
      {open ? (
        <>
          <WeatherEntry
            field={list.airfield}
            told={state.weather}
            now={now}
            flight={{ from: now, to: landing }}
            onTold={({ report: told, forecast, from, variationDeg, ground }, others) => {
              void dispatch(
                record(state.id, "weather.told", {
                  ...(told && { report: told }),
                  ...(forecast && { forecast }),
                  ...(from && { from }),
                  ...(variationDeg !== undefined && { variationDeg }),
                  ...(ground && { ground }),
                }),
              );
              // What was not taken stays to be read.
              setOpen(others.length > 0);
            }}
          />
          <Choice
            title="Runway condition"
            options={RUNWAY_CONDITIONS}
            value={state.weather?.ground ?? "dry"}
            onChange={(ground) => void dispatch(record(state.id, "weather.told", { ground }))}
          />
        </>
      ) : (
        <Button
          className="self-start px-5"
          textClassName="text-base"
          testID="weather"
          onPress={() => setOpen(true)}
        >
          {report ? "Update weather or runway condition" : "Enter the weather"}
        </Button>
      )}
      {made.map((judgement) => (
        <JudgementCard
          key={judgement.id}
          judgement={judgement}
          compact={judgement.grade === "within limits"}
        />
      ))}
    </View>
  );
}
