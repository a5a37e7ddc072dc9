import { View } from "react-native";
import { Text } from "../text";
import { Button } from "./button";

/** Number input in steps, without a keyboard. */
export function Stepper({
  text,
  step,
  unit,
  onStep,
  testID,
}: {
  text: string;
  step: number;
  /** For screen readers: "minutes". */
  unit: string;
  onStep: (by: number) => void;
  testID?: string;
}) {
  return (
    <View className="w-full max-w-sm flex-row items-center gap-3">
      <Button className="w-20" label={`−${step} ${unit}`} onPress={() => onStep(-step)}>
        {`−${step}`}
      </Button>
      <Text
        className={`shrink grow text-center font-strong ${text.length > 9 ? "text-xl" : "text-2xl"}`}
        testID={testID}
      >
        {text}
      </Text>
      <Button className="w-20" label={`+${step} ${unit}`} onPress={() => onStep(step)}>
        {`+${step}`}
      </Button>
    </View>
  );
}
