import { defaultPreferences, RETURN_RULES } from "@cravix/core/aircraft/preferences";
import { resumePoint } from "@cravix/core/checklist/resume-point";
import type { ReturnWay } from "@cravix/core/checklist/stream/events";
import type { Interruption } from "@cravix/core/checklist/stream/preflight-state";
import { View } from "react-native";
import { Screen } from "../../../ui/frame/screen";
import { Button } from "../../../ui/input/button";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { Caution } from "../../../ui/judgement-card";
import { Heading, Text } from "../../../ui/text";
import { useLoads } from "../../electrical";
import type { Acts, LoadedPreflight } from "../../open-preflight";

const TITLE: Record<NonNullable<Interruption["cause"]>, string> = {
  "spoken to": "Interrupted",
  "screen left": "You were away",
  "long gap": "Long pause",
  "take-off aborted": "Take-off aborted",
};

/** Resume after an interruption: position, last answer, and how far back to go. */
export function InterruptedPanel({ preflight, acts }: { preflight: LoadedPreflight; acts: Acts }) {
  const { list, state, item } = preflight;
  const loads = useLoads(preflight);
  const station = list.stations.find((s) => s.id === item?.station);
  const lastId = state.undoable.at(-1)?.eventId;
  const last = list.items.find((i) => state.answers[i.id]?.eventId === lastId);
  const { cause = "spoken to", since, at } = state.interruptions.findLast((i) => !i.resumedAt) ?? { at: "" };
  const rule = (list.preferences ?? defaultPreferences(list.type.recommended)).afterInterruption;
  const label = (way: ReturnWay): string => {
    if (way === "where I was" || !item) return "Continue where I was";
    const target = list.items.find((i) => i.id === resumePoint(list, state, item, way).itemId);
    if (way === "start of the station") return `Start this station again: ${station?.name ?? "this station"}`;
    return way === "some items back" ? `Go back to: ${target?.title ?? ""}` : "Start this step again";
  };
  const others = [...RETURN_RULES, "where I was" as const].filter((way) => way !== rule);
  useShortcuts({ Enter: () => acts.resume(rule) });
  return (
    <Screen
      actions={
        <>
          <Button
            tone="primary"
            className="min-h-24"
            textClassName="text-xl"
            testID="primary"
            onPress={() => acts.resume(rule)}
          >
            {label(rule)}
          </Button>
          <View className="flex-row flex-wrap gap-2">
            {others.map((way) => (
              <Button
                key={way}
                tone="deck"
                className="min-w-[45%] flex-1"
                textClassName="text-base"
                onPress={() => acts.resume(way)}
              >
                {label(way)}
              </Button>
            ))}
          </View>
        </>
      }
    >
      <Heading level={1} className="mt-6 text-3xl">
        {TITLE[cause]}
      </Heading>
      <View className="mt-4 gap-4">
        {since && <Text>{awayText(since, at)}</Text>}
        {loads.onSince !== undefined && (
          <Caution>{`The battery is still on: ${loads.on.map((load) => load.name).join(", ")}.`}</Caution>
        )}
        <View>
          <Text className="text-sm text-voice">You were at</Text>
          <Text className="font-strong text-lg">{item?.title}</Text>
          <Text className="text-voice">{station?.name}</Text>
        </View>
        {last && (
          <View>
            <Text className="text-sm text-voice">The last thing you answered</Text>
            <Text className="font-strong text-lg">{last.title}</Text>
            <Text className="text-voice">
              {state.answers[last.id]?.value ?? last.done ?? state.answers[last.id]?.outcome}
            </Text>
          </View>
        )}
        <Text>
          Items are easily missed after an interruption. Going back one station costs a minute; what you found
          stays logged.
        </Text>
      </View>
    </Screen>
  );
}

function awayText(since: string, at: string): string {
  const seconds = Math.max(0, Math.round((Date.parse(at) - Date.parse(since)) / 1000));
  return seconds < 90
    ? `No answer for ${seconds} seconds.`
    : `No answer for ${Math.round(seconds / 60)} minutes.`;
}
