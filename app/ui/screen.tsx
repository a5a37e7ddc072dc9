import type { ReactNode } from "react";
import { ScrollView, View } from "react-native";

/** A page with its actions in the thumb's zone at the bottom. */
export function Screen({
  children,
  actions,
  wideWidth = "max-w-3xl",
}: {
  children: ReactNode;
  actions?: ReactNode;
  wideWidth?: string;
}) {
  return (
    <View role="main" className="h-full flex-1 bg-paper">
      <ScrollView className="flex-1" contentContainerClassName="items-center pb-6" tabIndex={0}>
        <View className={`w-full px-[18px] pt-3 ${wideWidth}`}>{children}</View>
      </ScrollView>
      {actions && (
        <View className="items-center bg-deck">
          <View className={`w-full gap-2 px-4 py-3 ${wideWidth}`}>{actions}</View>
        </View>
      )}
    </View>
  );
}
