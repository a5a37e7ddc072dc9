import {
  BRAKE_WAYS,
  CARDS,
  HANDS,
  METHODS,
  mayGroup,
  type Preferences,
  preferenceReasons,
  RETURN_RULES,
  SURFACE_WAYS,
  WALKAROUNDS_BEFORE_FLOW,
} from "@cravix/core/aircraft/preferences";
import { SAMPLE_FATES } from "@cravix/core/fuel/fuel-inputs";
import { View } from "react-native";
import { applyPatch, type Change } from "../../store/state/apply-patch";
import { useAppDispatch } from "../../store/state/hooks";
import { preferencesSet } from "../../store/state/planned-slice";
import { Screen } from "../../ui/frame/screen";
import { goBack } from "../../ui/go-back";
import { Button } from "../../ui/input/button";
import { Choice } from "../../ui/input/choice";
import { Caution } from "../../ui/judgement-card";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";

const WORDS: Record<string, string> = {
  "read-and-do": "Read-and-do",
  "flow, then check": "Flow, then check",
  "one item each": "One item per card",
  groups: "Items seen in one look",
  "as listed": "As listed",
  "the other way round": "Reverse order",
  moved: "Move by hand",
  "looked at": "Look only",
  "brake first": "Brake, then controls",
  "controls first": "Controls, then brake",
  "some items back": "Three items back",
  "start of the station": "Start of the station",
  "start of the step": "Start of the step",
  discarded: "Into the waste container",
  "poured back": "Back into the tank if perfectly clean",
  kept: "Keep for the mechanic",
};
const words = (option: string) => WORDS[option] ?? option;

/** The pilot's preferences for this aircraft, each with its reason. */
export function PreferencesScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>
      {(aircraft) => <Settings aircraft={aircraft} />}
    </AircraftFrame>
  );
}

function Settings({ aircraft: { bundle, crew, crewId, preferences } }: { aircraft: KnownAircraft }) {
  const dispatch = useAppDispatch();
  const wide = useWide();
  const { registration } = bundle.aircraft;
  const { recommended, stations, name, fuel } = bundle.type;
  const laps = bundle.laps[crewId ?? ""] ?? 0;
  const role = crew.find((member) => member.id === crewId)?.role;
  const why = preferenceReasons(recommended, laps, role);
  const set = (part: Change<Preferences>) => {
    if (crewId)
      dispatch(preferencesSet({ crewId, registration, preferences: applyPatch(preferences, part) }));
  };
  const lap = stations.filter((station) => station.phase === "lap");
  const against = [
    recommended?.surfaces && recommended.surfaces.way !== preferences.surfaces && recommended.surfaces.why,
    recommended?.brake && recommended.brake.way !== preferences.brake && recommended.brake.why,
  ].filter((reason): reason is string => Boolean(reason));
  return (
    <Screen
      actions={
        <Button
          tone="primary"
          className="min-h-20"
          textClassName="text-xl"
          testID="primary"
          onPress={() => goBack(`/aircraft/${registration}/prepare`)}
        >
          Done
        </Button>
      }
    >
      <PageHead title={`${registration} preferences`}>Preferences</PageHead>
      <Text className="text-voice">
        {crew.find((member) => member.id === crewId)?.name} on {registration}, {name}. Saved for this
        aircraft.
      </Text>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-5"}>
        <View className={wide ? "flex-1 gap-5" : "gap-5"}>
          <Choice
            title="Checklist method"
            options={METHODS}
            value={preferences.method}
            onChange={(method) => set({ method })}
            words={words}
            why={
              preferences.method === "flow, then check" && laps < WALKAROUNDS_BEFORE_FLOW
                ? `${why.method} Until then, read-and-do is the better choice.`
                : why.method
            }
          />
          {mayGroup(laps, role) ? (
            <Choice
              title="Items per card"
              options={CARDS}
              value={preferences.cards ?? "one item each"}
              onChange={(cards) => set({ cards })}
              words={words}
              why={why.cards}
            />
          ) : (
            <View className="gap-1">
              <Heading className="text-lg">Items per card</Heading>
              <Text>One item per card</Text>
              <Text className="text-sm text-voice">{why.cards}</Text>
            </View>
          )}
          <Choice
            title="Control surfaces on the walkaround"
            options={SURFACE_WAYS}
            value={preferences.surfaces}
            onChange={(surfaces) => set({ surfaces })}
            words={words}
            why={why.surfaces}
          />
          <Choice
            title="Run-up order"
            options={BRAKE_WAYS}
            value={preferences.brake}
            onChange={(brake) => set({ brake })}
            words={words}
            why={why.brake}
          />
          <Choice
            title="After an interruption"
            options={RETURN_RULES}
            value={preferences.afterInterruption}
            onChange={(afterInterruption) => set({ afterInterruption })}
            words={words}
            why={why.afterInterruption}
          />
          {fuel && (
            <Choice
              title="Clean fuel samples"
              options={SAMPLE_FATES}
              value={preferences.sample ?? "discarded"}
              onChange={(sample) => set({ sample })}
              words={words}
              why={why.sample}
            />
          )}
          {against.map((reason) => (
            <Caution key={reason}>{`This differs from the recommendation for this type: ${reason}`}</Caution>
          ))}
        </View>
        <View className={wide ? "flex-1 gap-5" : "gap-5"}>
          {preferences.order ? (
            <View className="gap-2">
              <Heading className="text-lg">The walkaround</Heading>
              <Text>Your own order, set on the Route page.</Text>
              <Button textClassName="text-base" onPress={() => set({ order: undefined })}>
                Restore the checklist order
              </Button>
            </View>
          ) : (
            <>
              <Choice
                title="Direction"
                options={HANDS}
                value={preferences.hand}
                onChange={(hand) => set({ hand })}
                words={words}
                why={why.lap}
              />
              <Choice
                title="First station"
                options={lap.map((station) => station.id)}
                value={preferences.start ?? lap[0]?.id}
                onChange={(start) => set({ start })}
                words={(id) => lap.find((station) => station.id === id)?.name ?? id}
              />
            </>
          )}
        </View>
      </View>
    </Screen>
  );
}
