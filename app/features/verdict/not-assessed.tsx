import { runwayItem } from "@cravix/core/checklist/list/runway-in-use";
import { type FlightSubject, WAIVER_REASONS } from "@cravix/core/judgement/flight-subjects";
import type { Reason, VerdictResult } from "@cravix/core/verdict/verdict";
import { router } from "expo-router";
import { useState } from "react";
import { View } from "react-native";
import { record } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";

/** Subjects that a weather report can make known. */
const OF_WEATHER: readonly FlightSubject[] = [
  "report",
  "wind",
  "visibility",
  "ceiling",
  "forecast",
  "distances",
];

/** What this flight needs and Cravix could not assess, where to enter it, and the decision to go without. */
export function NotAssessed({
  preflight,
  result,
  mayDecide,
  onGo,
}: {
  preflight: LoadedPreflight;
  result: VerdictResult;
  /** True for the pilot, while the preflight is not signed. */
  mayDecide: boolean;
  onGo: (itemId: string) => void;
}) {
  const open = result.reasons.filter(({ unknown, waived }) => unknown && waived === undefined);
  if (open.length === 0) return null;
  const weather = runwayItem(preflight.list)?.id;
  return (
    <View className="gap-2" testID="not-assessed">
      <Heading className="text-lg">Not assessed: {open.length}</Heading>
      <View className="gap-2 rounded-xl bg-stone px-3 py-2">
        {open.map((reason) => (
          <Line
            key={reason.cause}
            reason={reason}
            enter={mayDecide ? entryOf(reason, preflight, weather, onGo) : undefined}
          />
        ))}
      </View>
      {mayDecide && result.unanswered.length === 0 && (
        <GoWithout preflight={preflight} result={result} subjects={result.notAssessed} />
      )}
    </View>
  );
}

/** Where the missing value is entered; undefined if it cannot be entered here. */
function entryOf(
  { unknown, itemId }: Reason,
  { state }: LoadedPreflight,
  weather: string | undefined,
  onGo: (itemId: string) => void,
): { label: string; go: () => void } | undefined {
  if (unknown === "loading")
    return { label: "Enter the load", go: () => router.push(`/preflight/${state.id}/load`) };
  if (unknown && OF_WEATHER.includes(unknown) && weather)
    return { label: "Wind, weather, runway", go: () => onGo(weather) };
  return itemId ? { label: "Go to the item", go: () => onGo(itemId) } : undefined;
}

/** A limit that was not checked repeats the reason of its subject: once is enough. */
function withoutReason(sentence: string, reason: string): string {
  const rest = sentence.startsWith(reason) ? sentence.slice(reason.length).trim() : sentence;
  return rest.charAt(0).toLowerCase() + rest.slice(1);
}

function Line({ reason, enter }: { reason: Reason; enter: { label: string; go: () => void } | undefined }) {
  const { judgement, evidence = [] } = reason;
  if (!judgement) return null;
  return (
    <View className="gap-0.5">
      <View className="flex-row items-center gap-2">
        <GradeMark grade="unjudged" size={18} />
        <Text className="shrink grow font-strong">{judgement.subject}</Text>
        {enter && (
          <Button tone="bare" className="min-h-12 px-0" textClassName="text-base" onPress={enter.go}>
            {enter.label}
          </Button>
        )}
      </View>
      {[
        judgement.sentence,
        ...evidence.map((one) => `${one.subject}: ${withoutReason(one.sentence, judgement.sentence)}`),
      ].map((sentence) => (
        <Text key={sentence} className="pl-6 text-sm">
          {sentence}
        </Text>
      ))}
    </View>
  );
}

/** The pilot's decision to fly without these assessments: one answer, for all of them, on record. */
function GoWithout({
  preflight,
  result,
  subjects,
}: {
  preflight: LoadedPreflight;
  result: VerdictResult;
  subjects: FlightSubject[];
}) {
  const dispatch = useAppDispatch();
  const [chosen, setChosen] = useState<string>();
  const [own, setOwn] = useState("");
  if (result.whyNotWaivable)
    return (
      <Text className="font-mid" testID="not-waivable">
        {result.whyNotWaivable}
      </Text>
    );
  const why = own.trim() || chosen;
  return (
    <View className="gap-2" testID="go-without">
      <Text className="font-mid">
        Enter what is missing, or decide to go without it. Your reason is saved with the preflight.
      </Text>
      {WAIVER_REASONS.map((reason) => (
        <Toggle
          key={reason}
          on={chosen === reason && own.trim() === ""}
          className="px-4"
          onPress={() => {
            setChosen(reason);
            setOwn("");
          }}
        >
          {reason}
        </Toggle>
      ))}
      <TextField label="Or in your own words" value={own} onChange={setOwn} maxLength={400} />
      <Button
        className="min-h-16"
        testID="waive"
        disabled={why === undefined}
        onPress={() => {
          if (why !== undefined)
            void dispatch(
              record(preflight.state.id, "assessment.waived", { subjects: [...new Set(subjects)], why }),
            );
        }}
      >
        Go without these assessments
      </Button>
    </View>
  );
}
