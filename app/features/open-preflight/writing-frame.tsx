import { ScrollView, View } from "react-native";
import { Button } from "../../ui/input/button";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import { NotSaved } from "../shell";

/** Full page for writing about one item, with back and save within thumb reach. */
export function WritingFrame({
  children,
  onBack,
  onLog,
  disabled,
}: {
  children: React.ReactNode;
  onBack: () => void;
  onLog: () => void;
  disabled: boolean;
}) {
  useShortcuts({ Enter: disabled ? undefined : onLog, Escape: onBack });
  return (
    <View className="h-full items-center bg-paper" role="main">
      <ScrollView
        className="w-full max-w-3xl flex-1"
        contentContainerClassName="gap-2 px-[18px] py-5"
        tabIndex={0}
      >
        {/* Report a storage failure here, not one screen later. */}
        <NotSaved />
        {children}
      </ScrollView>
      <View className="w-full items-center bg-deck">
        <View className="w-full max-w-3xl flex-row gap-3 px-4 py-3">
          <Button tone="deck" className="min-h-20 flex-1" onPress={onBack}>
            Back
          </Button>
          <Button
            tone="primary"
            className="min-h-20 flex-[1.7]"
            textClassName="text-2xl"
            disabled={disabled}
            onPress={onLog}
            testID="primary"
          >
            Log it
          </Button>
        </View>
      </View>
    </View>
  );
}
