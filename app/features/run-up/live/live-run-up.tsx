import type { CoachStep, Mark, RunUpProfile, Trace, TraceLine } from "@cravix/core/run-up";
import { useMemo } from "react";
import { ScrollView, View } from "react-native";
import type { EngineMonitor } from "../../../device/workers/engine-monitor";
import { Button } from "../../../ui/input/button";
import { PageHead } from "../../../ui/page-head";
import { Text } from "../../../ui/text";
import { CoachPanel } from "./coach-panel";
import { LiveChannels, LiveRpm } from "./live-channels";
import { type CoachEnd, useCoach } from "./use-coach";

/** Screen while the engine runs: the coach, with every channel below or beside it. */
export function LiveRunUp({
  title,
  profile,
  wide,
  practice,
  sequence,
  listen,
  onEnd,
  onEmergency,
}: {
  title: string;
  profile: RunUpProfile;
  wide: boolean;
  practice: boolean;
  sequence: (warm: boolean) => CoachStep[];
  listen: (on: {
    onLines: (lines: TraceLine[]) => void;
    onTrouble: (words: string) => void;
  }) => EngineMonitor;
  onEnd: (end: CoachEnd, trace: Trace | undefined, marks: Mark[], side?: "right" | "left") => void;
  onEmergency: () => void;
}) {
  const coach = useCoach({ sequence, profile, listen, onEnd });
  const { log, watch } = coach;
  const needles = useMemo(() => ({ log, watch }), [log, watch]);
  const channels = (
    <LiveChannels coach={needles} wide={wide} rpm={!wide && coach.coaching.view.unit !== undefined} />
  );
  return (
    <View className="h-full bg-paper" role="main">
      <View className="flex-row items-center justify-between gap-2 px-[18px] pt-3">
        <PageHead className="shrink text-xl">{title}</PageHead>
        <Text className="shrink-0 rounded-lg border-2 border-ink px-2 py-0.5 font-strong text-sm">
          {practice ? "practice" : "live from the engine monitor"}
        </Text>
      </View>
      <View className={`min-h-0 flex-1 ${wide ? "flex-row gap-6 px-[18px] py-3" : ""}`}>
        <View className={wide ? "w-[44%] gap-4" : "px-[18px] pt-2"}>
          <CoachPanel coach={coach} profile={profile} wide={wide} />
          {wide && <LiveRpm coach={needles} />}
        </View>
        <ScrollView className="flex-1" contentContainerClassName={wide ? "" : "px-3 pt-3"} tabIndex={0}>
          {channels}
        </ScrollView>
      </View>
      <View className="flex-row gap-2 bg-deck px-4 py-3">
        <Button tone="deck" className="min-h-16 flex-1" onPress={coach.finish} testID="finish">
          End run-up
        </Button>
        <Button tone="deck" className="min-h-16 flex-1" onPress={coach.skip} testID="skip">
          Next step
        </Button>
        <Button tone="primary" className="min-h-16 flex-1" onPress={onEmergency} testID="emergency">
          Emergency
        </Button>
      </View>
    </View>
  );
}
