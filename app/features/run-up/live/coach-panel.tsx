import type { RunUpProfile } from "@cravix/core/run-up";
import { sideNames } from "@cravix/core/run-up-entry";
import { formatNumber } from "@cravix/core/units/format";
import { View } from "react-native";
import { Alert } from "../../../ui/alert";
import { Button } from "../../../ui/input/button";
import { Text } from "../../../ui/text";
import type { Coach } from "./use-coach";

/** Current prompt with its number and progress, readable at a glance. */
export function CoachPanel({ coach, profile, wide }: { coach: Coach; profile: RunUpProfile; wide: boolean }) {
  const { step, view, at, of, asks, problem } = coach.coaching;
  const size = wide ? 132 : 112;
  if (problem)
    return (
      <Alert frame="box" className="my-4" textClassName="text-lg">
        {problem}
      </Alert>
    );
  if (!step)
    return (
      <Text className="my-6 text-xl" role="status">
        Waiting for engine data …
      </Text>
    );
  return (
    <View className="gap-2">
      <View className="flex-row items-baseline justify-between">
        <Text className="text-voice">{`Step ${at + 1} of ${of}`}</Text>
        <Text className="text-voice">{view.words ?? step.watch}</Text>
      </View>
      <View
        className="rounded-2xl bg-chock px-4 py-2"
        role="status"
        aria-live="assertive"
        testID={`coach-${step.step}`}
      >
        <Text
          className="font-strong text-on-chock"
          style={{ fontSize: step.say.length > 9 ? size * 0.36 : size * 0.5, lineHeight: size * 0.62 }}
        >
          {step.say}
        </Text>
      </View>
      <View className="flex-row items-baseline gap-3">
        <Text
          className="font-strong"
          style={{ fontSize: size, lineHeight: size * 1.05 }}
          testID="coach-number"
        >
          {view.number === undefined || Number.isNaN(view.number)
            ? "–"
            : formatNumber(
                view.unit === "V"
                  ? view.number
                  : Math.round(view.number / (view.unit ? 1 : 5)) * (view.unit ? 1 : 5),
                view.unit === "V" ? 1 : 0,
              )}
        </Text>
        <Text className="text-2xl text-voice">{view.unit ?? "rpm"}</Text>
      </View>
      <View className="h-4 overflow-hidden rounded-full bg-stone" aria-hidden>
        <View className="h-4 bg-ink" style={{ width: `${Math.round(view.progress * 100)}%` }} />
      </View>
      {asks && (
        <View role="alert" className="gap-2 rounded-xl border-4 border-clay px-3 py-3">
          <Text className="font-strong text-xl text-clay">{`No rpm change. Is the ignition on ${sideNames(profile)[asks]}?`}</Text>
          <View className="flex-row gap-2">
            <Button className="min-h-20 flex-1" onPress={coach.again} testID="coach-repeat-side">
              No: try again
            </Button>
            <Button
              tone="primary"
              className="min-h-20 flex-1"
              onPress={coach.sure}
              testID="coach-confirm-side"
            >
              Yes, it is
            </Button>
          </View>
        </View>
      )}
    </View>
  );
}
