import type { ReactNode } from "react";
import { ScrollView, View } from "react-native";
import { Screen } from "../../ui/frame/screen";
import { PageHead } from "../../ui/page-head";
import { useWide } from "../../ui/use-wide";
import { SaveStatus } from "./save-status";

/**
 * Main page of a place: title, tabs, list, and the selected entry. Side by side if there is room; on a phone the page positions
 * the detail.
 */
export function PlaceFrame({
  name,
  parts,
  list,
  detail,
  actions,
}: {
  name: string;
  parts?: ReactNode;
  list: ReactNode;
  /** Shown on a wide screen only: on a phone the selected entry opens within the list. */
  detail: ReactNode;
  actions?: ReactNode;
}) {
  const wide = useWide();
  if (!wide)
    return (
      <Screen actions={actions}>
        <View className="mb-2 flex-row items-center justify-between">
          <PageHead>{name}</PageHead>
          <SaveStatus />
        </View>
        {parts}
        <View className="mt-3 gap-2">{list}</View>
      </Screen>
    );
  return (
    <View role="main" className="h-full flex-row bg-paper">
      <ScrollView className="max-w-[520px] flex-1 border-r-2 border-stone" tabIndex={0}>
        <View className="gap-3 px-5 pb-6 pt-4">
          <PageHead>{name}</PageHead>
          {parts}
          <View className="gap-2">{list}</View>
        </View>
      </ScrollView>
      <View className="min-w-0 flex-[1.4]">
        <ScrollView className="flex-1" tabIndex={0}>
          <View className="px-7 pb-4 pt-5">{detail}</View>
        </ScrollView>
        {actions && (
          <View className="flex-row justify-end px-7 pb-4">
            <View className="w-full max-w-[520px] gap-2 rounded-2xl bg-deck px-4 py-3">{actions}</View>
          </View>
        )}
      </View>
    </View>
  );
}
