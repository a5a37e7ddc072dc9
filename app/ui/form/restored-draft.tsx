import { View } from "react-native";
import { Button } from "../input/button";
import { Text } from "../text";

/** Says that a form opened with what was entered before, and lets the person begin again. */
export function RestoredDraft({ restored, startAgain }: { restored: boolean; startAgain: () => void }) {
  if (!restored) return null;
  return (
    <View className="flex-row flex-wrap items-center gap-x-3" role="status" testID="restored-draft">
      <Text className="shrink text-sm text-voice">Restored from your draft on this device.</Text>
      <Button tone="bare" className="px-0" textClassName="text-sm" onPress={startAgain}>
        Start again
      </Button>
    </View>
  );
}
