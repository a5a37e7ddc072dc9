import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { runwayInUse } from "@cravix/core/checklist/list/runway-in-use";
import { Redirect, router } from "expo-router";
import { useEffect, useState } from "react";
import { View } from "react-native";
import { canSpeak, speak, stopSpeaking } from "../../device/platform/speech";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type FoldedPreflight,
  FoundStep,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";

/** Line-up check after acceptance: nothing to tap while the aircraft moves. */
export function LineUpScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <LineUp folded={folded} />}</PreflightFrame>;
}

function LineUp({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const wide = useWide();
  const [aborted, setAborted] = useState(false);
  const [wrong, setWrong] = useState<Item>();
  const { list, state } = folded;
  const lines = list.lineUp ?? [];
  useEffect(() => stopSpeaking, []);
  const parked = `/preflight/${state.id}/after` as const;
  // Only after the aircraft was accepted.
  if (state.signed?.decision !== "fly") return <Redirect href={`/preflight/${state.id}/verdict`} />;
  if (wrong)
    return (
      <FoundStep
        walkId={state.id}
        item={wrong}
        preset={`Take-off aborted. ${wrong.title.replace(/\?$/, "")}: not as it should be`}
        onBack={() => setWrong(undefined)}
        acts={{
          found: (item, text, grade, more) => {
            acts.aborted();
            acts.found(item, text, grade, more);
            router.replace(parked);
          },
        }}
      />
    );
  if (aborted)
    return (
      <Screen
        actions={
          <Button tone="deck" className="min-h-16" onPress={() => setAborted(false)}>
            Back
          </Button>
        }
      >
        <PageHead className="mt-2" title={`${list.registration} take-off aborted`}>
          What made you stop?
        </PageHead>
        <Text className="mt-1 text-voice">
          When clear of the runway and brakes set. It is logged for the next pilot and the mechanic.
        </Text>
        <View className="mt-4 gap-3">
          {lines.map((item) => (
            <Button
              key={item.id}
              className="min-h-16 items-start"
              textClassName="text-lg text-left"
              onPress={() => setWrong(item)}
            >
              {item.title}
            </Button>
          ))}
          <Button
            className="min-h-16 items-start"
            textClassName="text-lg text-left"
            testID="abort-not-aircraft"
            onPress={() => {
              acts.aborted();
              router.replace(parked);
            }}
          >
            Runway, traffic or weather: aircraft OK
          </Button>
        </View>
      </Screen>
    );
  const runway = runwayInUse(list, state)?.runway;
  const spoken = [
    ...(runway ? [`Runway ${[...runway.id].join(" ")}.`] : []),
    ...lines.map((item) => `${item.title.replace(/[?.]$/, "")}.`),
  ].join(" ");
  return (
    <Screen
      actions={
        <View className="flex-row gap-3">
          <Button tone="deck" className="min-h-20 flex-1" testID="abort" onPress={() => setAborted(true)}>
            Take-off aborted
          </Button>
          <Button
            tone="primary"
            className="min-h-20 flex-[1.5]"
            textClassName="text-xl"
            testID="primary"
            onPress={() => router.replace(parked)}
          >
            Parked: after-flight checks
          </Button>
        </View>
      }
    >
      <View className="flex-row items-center justify-between">
        <PageHead className="mt-2" title={`${list.registration} line-up check`}>
          Line-up check
        </PageHead>
        {canSpeak() && (
          <Button className="px-3" testID="speak" onPress={() => speak(spoken)}>
            Read aloud
          </Button>
        )}
      </View>
      <Text className="text-voice">Eyes outside: read it or listen. No tapping needed.</Text>
      <View className={`mt-3 ${wide ? "gap-6" : "gap-3"}`} testID="line-up">
        {runway && (
          <Line
            title={`Runway ${runway.id}`}
            good={`heading ${String(runway.headingDeg).padStart(3, "0")}°`}
          />
        )}
        {lines.map((item) => (
          <Line key={item.id} title={item.title.replace(/\?$/, "")} good={item.good} />
        ))}
      </View>
    </Screen>
  );
}

function Line({ title, good }: { title: string; good: string }) {
  const wide = useWide();
  return (
    <View className="border-l-8 border-chock pl-4">
      <Heading className={wide ? "text-4xl" : "text-2xl"}>{title}</Heading>
      <Text className={wide ? "text-2xl" : "text-lg"}>{good}</Text>
    </View>
  );
}
