import type { ReactNode } from "react";
import { Pressable, View } from "react-native";

/** List row beside a detail view: the selected one has a dark frame and yellow edge. */
export function ListRow({
  chosen,
  onPress,
  children,
  className = "flex-row items-center gap-3",
  testID,
}: {
  chosen: boolean;
  onPress: () => void;
  children: ReactNode;
  className?: string;
  testID?: string;
}) {
  return (
    <Pressable
      role="button"
      aria-pressed={chosen}
      onPress={onPress}
      className={`min-h-14 overflow-hidden rounded-xl border-2 py-2 pl-4 pr-3 ${chosen ? "border-ink" : "border-stone"} ${className}`}
      testID={testID}
    >
      {chosen && <View className="absolute bottom-0 left-0 top-0 w-2 bg-chock" />}
      {children}
    </Pressable>
  );
}
