import { conditionText } from "@cravix/core/aircraft/condition-text";
import { router } from "expo-router";
import { Pressable, View } from "react-native";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";
import { SaveStatus } from "../shell";

/** Aircraft, today's conditions, what is out or on, and save status. */
export function PreflightHeader({ preflight }: { preflight: LoadedPreflight }) {
  const { list, ledger } = preflight;
  const on = ledger.filter((entry) => entry.how === "on" && entry.state === "out").length;
  const off = ledger
    .filter((entry) => entry.how === "off" && entry.state !== "waits")
    .reduce((sum, entry) => sum + entry.count, 0);
  const open = ledger.filter((entry) => entry.how === "open" && entry.state === "out").length;
  const moved = ledger.filter((entry) => entry.how === "moved" && entry.state === "out").length;
  const lines = [
    off > 0 && `${off} off`,
    on > 0 && `${on} on`,
    open > 0 && `${open} open`,
    moved > 0 && `${moved} moved`,
  ].filter((line): line is string => Boolean(line));
  return (
    <View className="flex-row items-center justify-between gap-2">
      <View className="shrink">
        <View className="flex-row flex-wrap items-baseline gap-x-2">
          <Text className="font-strong text-lg">{list.registration}</Text>
          <Text className="text-sm text-voice" numberOfLines={1}>
            {[list.type.name, ...list.conditions.map(conditionText)].join(" · ")}
          </Text>
        </View>
        <SaveStatus />
      </View>
      <View className="flex-row items-center gap-2">
        <Pressable
          role="button"
          aria-label={`To put back: ${lines.join(" ") || "nothing"}`}
          onPress={() => router.push(`/preflight/${preflight.state.id}/ledger`)}
          className="min-h-14 justify-center"
        >
          <View className={`rounded-lg border-2 border-ink px-2 py-1 ${on > 0 ? "bg-chock" : ""}`}>
            <Text
              className={`text-center font-strong text-sm leading-[17px] ${on > 0 ? "text-on-chock" : ""}`}
            >
              {lines.join("\n") || "Put back"}
            </Text>
          </View>
        </Pressable>
        <Button
          tone="bare"
          className="px-1"
          textClassName="text-sm"
          label="Leave the preflight; you can resume it later"
          onPress={() => router.replace("/")}
        >
          Leave
        </Button>
      </View>
    </View>
  );
}
