import { type EMERGENCIES, type Emergency, emergencyCard, type RunUpProfile } from "@cravix/core/run-up";
import { View } from "react-native";
import { GradeMark } from "../../../ui/grade-mark";
import { Button } from "../../../ui/input/button";
import { PageHead } from "../../../ui/page-head";
import { Text } from "../../../ui/text";

/** Possible emergencies as large buttons. */
export function EmergencyList({ onPick, onBack }: { onPick: (id: Emergency) => void; onBack: () => void }) {
  return (
    <View className="h-full gap-3 bg-paper px-[18px] py-5" role="main">
      <PageHead className="text-3xl text-clay">What is the problem?</PageHead>
      {(
        [
          "fire",
          "smoke",
          "brakes",
          "stops on one",
          "no drop",
        ] satisfies readonly Emergency[] as (typeof EMERGENCIES)[number][]
      ).map((id) => (
        <Button
          key={id}
          className="min-h-20 border-4"
          textClassName="text-2xl"
          onPress={() => onPick(id)}
          testID={`emergency-${id}`}
        >
          {emergencyCard(id).button}
        </Button>
      ))}
      <View className="flex-1" />
      <Button className="min-h-16" onPress={onBack}>
        Back
      </Button>
    </View>
  );
}

/** Immediate actions in few words, full screen. */
export function EmergencyNow({
  id,
  profile,
  where,
  practice,
  onLog,
  onBack,
}: {
  id: Emergency;
  profile: RunUpProfile | undefined;
  where: string;
  /** Practice: nothing is logged. */
  practice: boolean;
  onLog: (text: string) => void;
  onBack: () => void;
}) {
  const card = emergencyCard(id, profile, where);
  return (
    <View className="h-full bg-paper" role="main" testID={`emergency-card-${id}`}>
      <View
        className="flex-1 gap-3 border-t-[14px] border-clay px-[18px] py-4"
        role="alert"
        aria-live="assertive"
      >
        <View className="flex-row items-start gap-3">
          <View className="pt-2">
            <GradeMark grade="stop" size={34} />
          </View>
          <PageHead className="shrink text-3xl text-clay">{card.title}</PageHead>
        </View>
        {card.steps.map((step, i) => (
          <View key={step} className="flex-row gap-3">
            <Text className="w-9 shrink-0 font-strong text-2xl">{String(i + 1)}</Text>
            <Text className="shrink font-strong text-2xl">{step}</Text>
          </View>
        ))}
        <Text className="text-lg">{card.after}</Text>
        <Text className="text-sm text-voice">Your aircraft's own emergency checklist comes first.</Text>
      </View>
      <View className="gap-2 bg-deck px-4 py-3">
        <Text className="text-deck-ink">
          {practice
            ? `Practice: nothing is logged. On a real engine this would be logged: ${card.text}`
            : card.text}
        </Text>
        <View className="flex-row gap-3">
          {!practice && (
            <Button tone="deck" className="min-h-20 flex-1" onPress={onBack}>
              Back
            </Button>
          )}
          <Button
            tone="primary"
            className="min-h-20 flex-[1.7]"
            textClassName="text-2xl"
            onPress={() => (practice ? onBack() : onLog(card.text))}
            testID="primary"
          >
            {practice ? "Back to practice" : "Stop: log it"}
          </Button>
        </View>
      </View>
    </View>
  );
}
