import type { ReadGroup } from "@cravix/core/weather/read-weather";
import { View } from "react-native";
import { Text } from "../../ui/text";

/** The report as it came, group by group, with what was understood beside each. */
export function ReportGroups({ groups, title }: { groups: readonly ReadGroup[]; title: string }) {
  if (groups.length === 0) return null;
  return (
    <View className="gap-0.5 border-l-2 border-stone pl-3" testID="report-groups">
      <Text className="text-xs text-voice">{title}</Text>
      {groups.map(({ text, status, words }, place) => {
        const bad = status === "doubted" || status === "not understood";
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a report can contain the same group twice, and never changes
          <View key={place} className="flex-row gap-3">
            <Text className="w-32 shrink-0 text-xs" selectable>
              {text}
            </Text>
            <Text className={`shrink text-xs ${bad ? "font-strong text-clay" : "text-voice"}`}>
              {status === "doubted" ? `not used: ${words}` : words}
            </Text>
          </View>
        );
      })}
    </View>
  );
}
