import type { Reason } from "@cravix/core/verdict/verdict";
import { View } from "react-native";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { JudgementCard } from "../../ui/judgement-card";
import { Text } from "../../ui/text";

/** One reason of a verdict: a judgement with its evidence, or a discrepancy with its station. */
export function ReasonCard({ reason, station }: { reason: Reason; station: string | undefined }) {
  if (reason.judgement)
    return (
      <View className="gap-1">
        <JudgementCard judgement={{ ...reason.judgement, grade: reason.grade }} />
        {reason.waived !== undefined && (
          <Text className="border-l-2 border-stone pl-3 text-sm">{`Going without: “${reason.waived}”`}</Text>
        )}
        {reason.evidence?.map((one) => (
          <Text key={one.id} className="border-l-2 border-stone pl-3 text-sm">
            {one.subject}: {one.sentence}
          </Text>
        ))}
      </View>
    );
  return (
    <View
      className={`rounded-xl bg-stone px-3 py-2 ${reason.grade === "stop" ? "border-l-8 border-clay" : ""}`}
    >
      <View className="flex-row items-center gap-2">
        <GradeMark grade={reason.grade} />
        <Text className={`font-strong ${reason.grade === "stop" ? "text-clay" : ""}`}>
          {GRADE_WORD[reason.grade]}
        </Text>
        <Text className="shrink text-sm text-voice">{station}</Text>
      </View>
      <Text className="mt-0.5">{reason.text}</Text>
    </View>
  );
}
