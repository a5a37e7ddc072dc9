import type { OpenQuestion } from "@cravix/core/diagnosis";
import { View } from "react-native";
import { Button } from "../../../ui/input/button";
import { Text } from "../../../ui/text";

/** Questions only the pilot can answer, one at a time, with large answers two per row. */
export function PilotQuestions({
  question,
  onAnswer,
}: {
  question: OpenQuestion;
  onAnswer: (answer: OpenQuestion["answers"][number]) => void;
}) {
  return (
    <View
      role="group"
      aria-label={question.words}
      className="mb-4 max-w-3xl gap-2 rounded-xl border-4 border-ink px-3 py-3"
      testID={`ask-${question.id.replace(" ", "-")}`}
    >
      <Text className="font-strong text-xl">{question.words}</Text>
      <View className="flex-row flex-wrap gap-2">
        {question.answers.map((answer) => (
          <Button
            key={answer.words}
            className="min-h-16 grow basis-[47%] px-1"
            textClassName="text-base"
            onPress={() => onAnswer(answer)}
          >
            {answer.words}
          </Button>
        ))}
      </View>
    </View>
  );
}
