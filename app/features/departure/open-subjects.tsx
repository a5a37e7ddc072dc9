import { subjectOfCause } from "@cravix/core/judgement/flight-subjects";
import type { Judgement } from "@cravix/core/judgement/judgement";
import { View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { Heading, Text } from "../../ui/text";

/** Judgements of what could not be assessed, one of each subject: the one that explains the others. */
export function openSubjects(judgements: readonly Judgement[]): Judgement[] {
  const found = new Map<string, Judgement>();
  for (const judgement of judgements) {
    if (judgement.grade !== "unjudged" || !subjectOfCause(judgement.cause)) continue;
    const cause = judgement.cause as string;
    if (!found.has(cause) || judgement.explains) found.set(cause, judgement);
  }
  return [...found.values()];
}

/** What the next flight needs and is not known yet, on top of its plan. */
export function OpenSubjects({ judgements, load }: { judgements: readonly Judgement[]; load: boolean }) {
  const open = openSubjects(judgements);
  const lines = [
    ...open.map(({ subject, sentence }) => ({ subject, sentence })),
    ...(load ? [{ subject: "Mass and balance", sentence: "Not checked: the load is not entered." }] : []),
  ];
  if (lines.length === 0)
    return (
      <Text className="font-mid" testID="open-subjects">
        Everything that can be assessed before the walkaround is known.
      </Text>
    );
  return (
    <View className="gap-1 rounded-xl bg-stone px-3 py-2" testID="open-subjects">
      <Heading className="text-lg">{`Not assessed yet: ${lines.length}`}</Heading>
      {lines.map(({ subject, sentence }) => (
        <View key={subject} className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark grade="unjudged" size={18} />
          </View>
          <Text className="shrink text-sm">
            <Text className="font-strong">{`${subject}. `}</Text>
            {sentence}
          </Text>
        </View>
      ))}
    </View>
  );
}
