import { passengerBriefing } from "@cravix/core/departure/briefing";
import { useState } from "react";
import { View } from "react-native";
import { canSpeak, speak } from "../../device/platform/speech";
import { record } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Screen } from "../../ui/frame/screen";
import { goBack } from "../../ui/go-back";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { type FoldedPreflight, PreflightFrame } from "../open-preflight";

/** For the passengers themselves: large text, one instruction at a time, each confirmed by the reader. */
export function PassengersScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Passengers folded={folded} />}</PreflightFrame>;
}

function Passengers({ folded: { list, state } }: { folded: FoldedPreflight }) {
  const dispatch = useAppDispatch();
  const wide = useWide();
  const lines = passengerBriefing(list.type.cabin);
  const [at, setAt] = useState(0);
  const line = lines[at];
  const back = `/preflight/${state.id}`;
  const next = () => {
    if (at + 1 < lines.length) {
      setAt(at + 1);
      return;
    }
    void dispatch(
      record(state.id, "briefing.given", {
        to: "passengers",
        steps: lines.map(({ id, words }) => ({ title: id, words })),
      }),
    );
    goBack(back);
  };
  return (
    <Screen
      back={back}
      actions={
        <Button tone="primary" className="min-h-20" textClassName="text-2xl" testID="primary" onPress={next}>
          {at + 1 < lines.length ? "I understand" : "I understand: finish"}
        </Button>
      }
    >
      <View className="flex-row items-center justify-between">
        <PageHead title={`${list.registration} passengers`}>Before you fly</PageHead>
        {canSpeak() && line && (
          <Button className="px-3" onPress={() => speak(line.words)}>
            Read aloud
          </Button>
        )}
      </View>
      <Text className="text-sm text-voice">{`${at + 1} of ${lines.length}. If anything is unclear, ask your pilot.`}</Text>
      <Text className={`mt-6 font-strong ${wide ? "text-4xl" : "text-3xl"}`} testID="passenger-line">
        {line?.words}
      </Text>
    </Screen>
  );
}
