import { View } from "react-native";
import { Button } from "../input/button";

/** The two buttons below a short form. */
export function SaveOrCancel({
  save = "Save",
  disabled = false,
  testID,
  onSave,
  onCancel,
}: {
  save?: string;
  disabled?: boolean;
  testID: string;
  onSave: () => void;
  onCancel: () => void;
}) {
  return (
    <View className="flex-row flex-wrap gap-2">
      <Button tone="primary" className="px-5" disabled={disabled} testID={testID} onPress={onSave}>
        {save}
      </Button>
      <Button tone="bare" textClassName="text-base" onPress={onCancel}>
        Cancel
      </Button>
    </View>
  );
}
