import type { ReactNode } from "react";
import { View } from "react-native";
import { Text } from "./text";

const FRAME = {
  /** Text only. */
  plain: "",
  /** Next to its subject. */
  line: "border-l-4 border-clay pl-2",
  box: "rounded-xl border-2 border-clay px-3 py-2",
  /** Must not be overlooked. */
  heavy: "rounded-xl border-4 border-clay px-3 py-2",
};

/** An urgent message, announced by screen readers. */
export function Alert({
  children,
  frame = "plain",
  className = "",
  textClassName = "",
  testID,
}: {
  children: ReactNode;
  frame?: keyof typeof FRAME;
  className?: string;
  textClassName?: string;
  testID?: string;
}) {
  return (
    <View role="alert" className={`shrink ${FRAME[frame]} ${className}`} testID={testID}>
      <Text className={`font-mid ${frame === "line" ? "" : "text-clay"} ${textClassName}`}>{children}</Text>
    </View>
  );
}
