import { type BriefingStep, composeBriefing } from "@cravix/core/departure/briefing";
import type { WindRange } from "@cravix/core/runways/worst-wind";
import { formatNumber } from "@cravix/core/units/format";
import { departureOfPreflight } from "@cravix/core/verdict/judges/judge-departure";
import { router } from "expo-router";
import { useEffect, useMemo } from "react";
import { View } from "react-native";
import { canSpeak, speak, stopSpeaking } from "../../device/platform/speech";
import { record } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Button } from "../../ui/input/button";
import { Heading, Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";

const spokenWind = ({ fromDeg, kt, gustKt }: WindRange) =>
  `${fromDeg === undefined ? "variable" : `${formatNumber(Math.round(fromDeg))} degrees`}, ${formatNumber(Math.round(kt))} knots${gustKt ? `, gusts ${formatNumber(Math.round(gustKt))}` : ""}`;

/** Briefing from the preflight's current numbers; undefined before a runway is chosen. */
export function useBriefing(preflight: LoadedPreflight, turnBackFt?: number): BriefingStep[] | undefined {
  const { list, state, judged } = preflight;
  return useMemo(() => {
    const reckoned = departureOfPreflight(list, state, judged);
    if (!reckoned) return undefined;
    return composeBriefing({
      type: list.type,
      departure: reckoned.departure,
      ...(reckoned.input.wind && { windWords: spokenWind(reckoned.input.wind) }),
      ...(turnBackFt && { turnBackFt }),
      ...(state.plannedLaunch && { launch: state.plannedLaunch }),
    });
  }, [list, state, judged, turnBackFt]);
}

/** Briefing step by step, read aloud by the pilot or the device, and recorded as given. */
export function BriefingPanel({ preflight }: { preflight: LoadedPreflight }) {
  const dispatch = useAppDispatch();
  const { state } = preflight;
  const steps = useBriefing(preflight, state.turnBackFt);
  useEffect(() => stopSpeaking, []);
  if (!steps)
    return (
      <Text className="text-voice">
        Choose a runway: the briefing with today's numbers then appears here.
      </Text>
    );
  const given = state.briefings.find(({ to }) => to === "crew");
  return (
    <View className="gap-2" testID="briefing">
      <Heading className="text-lg">Briefing with today's numbers</Heading>
      {steps.map(({ id, title, words }) => (
        <View key={id} className="border-l-4 border-chock pl-3">
          <Text className="font-strong">{title}</Text>
          <Text>{words}</Text>
        </View>
      ))}
      <View className="flex-row flex-wrap gap-2">
        {canSpeak() && (
          <Button
            className="px-5"
            textClassName="text-base"
            testID="read-briefing"
            onPress={() => speak(steps.map(({ title, words }) => `${title}. ${words}`).join(" "))}
          >
            Read aloud
          </Button>
        )}
        <Button
          className="px-5"
          textClassName="text-base"
          testID="briefing-given"
          pressed={given !== undefined}
          onPress={() =>
            void dispatch(
              record(state.id, "briefing.given", {
                to: "crew",
                steps: steps.map(({ title, words }) => ({ title, words })),
              }),
            )
          }
        >
          {given ? "Briefing given, saved" : "Briefing given: save it"}
        </Button>
      </View>
      <Text className="text-sm text-voice">
        The handbook's procedures come first. Cravix never suggests a turn-back height.
      </Text>
    </View>
  );
}

/** Link to the page handed to passengers. */
export function PassengersDoor({ preflight: { state } }: { preflight: LoadedPreflight }) {
  const given = state.briefings.find(({ to }) => to === "passengers");
  return (
    <View className="gap-1">
      <Button
        className="self-start px-5"
        textClassName="text-base"
        testID="passengers"
        onPress={() => router.push(`/preflight/${state.id}/passengers`)}
      >
        {given ? "Passengers briefed: show again" : "Show the passenger briefing"}
      </Button>
    </View>
  );
}
