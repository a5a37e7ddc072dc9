import type { AircraftStatus } from "@cravix/core/verdict/aircraft-status";
import { View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { Text } from "../../ui/text";
import { STANDING } from "./status-text";

/** Aircraft status as shape and word. */
export function StatusMark({
  standing,
  none,
  large = false,
}: {
  standing: AircraftStatus | undefined;
  /** Text if the status is unknown. */
  none: string;
  large?: boolean;
}) {
  return (
    <View className={`flex-row items-center ${large ? "gap-3" : "gap-2"}`}>
      <GradeMark grade={standing?.grade ?? "unjudged"} size={large ? 36 : 22} />
      <Text
        className={`font-strong ${large ? "text-2xl" : "text-base"} ${standing?.grade === "stop" ? "text-clay" : ""}`}
      >
        {standing ? STANDING[standing.verdict] : none}
      </Text>
    </View>
  );
}
