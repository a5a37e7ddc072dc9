import type { Observation } from "@cravix/core/diagnosis";
import { type RunUpEngine, sideNames, type TypedRead, valuesOutsideLimits } from "@cravix/core/run-up-entry";
import { capital, formatNumber } from "@cravix/core/units/format";
import { View } from "react-native";
import { Screen } from "../../../ui/frame/screen";
import { PageHead } from "../../../ui/page-head";
import { Text } from "../../../ui/text";
import { DiagnosisPanel } from "../read/diagnosis-panel";
import { PilotQuestions } from "../read/pilot-questions";
import { NotCleared, ResultActions } from "../read/result-parts";

/** Diagnosis of numbers entered by hand that need attention, and the next test. The numbers are already recorded. */
export function TypedPage({
  title,
  engine,
  read,
  wide,
  onTell,
  onCleared,
  onAgain,
  onEmergency,
  onDone,
}: {
  title: string;
  engine: RunUpEngine;
  read: TypedRead;
  wide: boolean;
  onTell: (told: Observation[]) => void;
  /** Plugs were cleared: enter the numbers again. */
  onCleared: () => void;
  onAgain: () => void;
  onEmergency: () => void;
  onDone: () => void;
}) {
  const { profile, limits } = engine;
  const { report, remedied, question, clears, over } = read;
  const offers = clears && !over && !question;
  return (
    <Screen
      actions={
        <ResultActions
          minute={
            offers && {
              words: "Plug clearing done: enter new numbers",
              testID: "minute-done",
              onPress: onCleared,
            }
          }
          again={{ words: "Enter again", onPress: onAgain }}
          onEmergency={onEmergency}
          onward={{ words: "Go to the preflight", testID: "to-walk", onPress: onDone }}
        />
      }
    >
      <PageHead className="mb-2 text-2xl">{title}</PageHead>
      {over && <NotCleared tries={profile.clear.tries} />}
      {question && <PilotQuestions question={question} onAnswer={({ told }) => onTell(told)} />}
      <View className={wide ? "flex-row gap-8" : "gap-5"}>
        <View className={wide ? "flex-1" : ""}>
          <Drops numbers={read.numbers} words={sideNames(profile)} most={limits.maxDropRpm} />
          <Text className="mt-2 text-voice">The numbers are logged already.</Text>
        </View>
        <View className={wide ? "flex-1" : ""}>
          <DiagnosisPanel
            report={report}
            out={valuesOutsideLimits(read.numbers, engine)}
            remedied={remedied}
            over={over}
            onTried={(told) => onTell([told])}
          />
        </View>
      </View>
    </Screen>
  );
}

function Drops({
  numbers,
  words,
  most,
}: {
  numbers: TypedRead["numbers"];
  words: { right: string; left: string };
  most: number | undefined;
}) {
  const { base } = numbers;
  return (
    <View className="flex-row gap-3">
      {(["right", "left"] as const).map((side) => {
        const rpm = numbers[side];
        const out = rpm !== undefined && most !== undefined && base - rpm > most;
        return (
          <View key={side} className="flex-1 rounded-xl bg-stone px-3 py-2">
            <Text className="text-sm">{capital(words[side])}</Text>
            <Text className={`font-strong text-4xl ${out ? "text-clay" : ""}`}>
              {rpm === undefined ? "–" : formatNumber(rpm - base)}
            </Text>
            {out && <Text className="text-sm text-clay">{`limit ${formatNumber(most)}`}</Text>}
          </View>
        );
      })}
    </View>
  );
}
