import { lessonChoices } from "@cravix/core/diagnosis";
import { capital } from "@cravix/core/units/format";
import { View } from "react-native";
import type { RunUpAnswer } from "../../../device/workers/run-up.worker";
import { Button } from "../../../ui/input/button";
import { Heading, Text } from "../../../ui/text";
import { faultLabel } from "./random-scenario";

/** Practice question: the numbers are shown, the diagnosis is hidden, and one of these faults is simulated. */
export function Guess({
  answer,
  truth,
  onGuess,
}: {
  answer: RunUpAnswer;
  truth: string;
  onGuess: (kind: string) => void;
}) {
  return (
    <View role="group" aria-label="What is the fault?" className="gap-2" testID="guess">
      <Heading className="text-2xl">What is the fault?</Heading>
      <Text>Look at the drops and the other checks, then choose.</Text>
      {lessonChoices(answer.report.ranked, truth).map((kind) => (
        <Button
          key={kind}
          className="min-h-16"
          onPress={() => onGuess(kind)}
          testID={`guess-${kind.replaceAll(" ", "-")}`}
        >
          {capital(faultLabel(kind))}
        </Button>
      ))}
    </View>
  );
}

/** The simulated fault, and the learner's answer. */
export function Planting({ words, guess, truth }: { words: string; guess?: string; truth: string }) {
  return (
    <View className="mb-3 gap-1 rounded-xl bg-stone px-3 py-2" testID="simulated-fault">
      <Text className="font-strong text-lg">{`Simulated fault: ${words}.`}</Text>
      {guess !== undefined && (
        <Text>{guess === truth ? "Correct." : `Your answer: ${faultLabel(guess)}.`}</Text>
      )}
      <Text className="text-sm">Practice: nothing of this is logged.</Text>
    </View>
  );
}
