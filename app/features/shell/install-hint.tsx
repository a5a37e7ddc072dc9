import { View } from "react-native";
import { install, useInstall } from "../../device/install";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";

/** Hint for installing Cravix: a button if the browser supports it, else instructions. `quiet`: button only. */
export function InstallHint({ quiet = false }: { quiet?: boolean }) {
  const state = useInstall();
  if (state === "installed") return quiet ? null : <Text>Cravix is installed on this device.</Text>;
  if (state === "by hand")
    return quiet ? null : (
      <Text>
        To add Cravix to the home screen, choose “Install” or “Add to home screen” in the browser's menu. It
        then opens like an app, with or without a network.
      </Text>
    );
  return (
    <View className="flex-row items-center justify-between gap-3 rounded-xl bg-stone px-3 py-2">
      <Text className="shrink">Add Cravix to the home screen: it then opens without a network too.</Text>
      <Button textClassName="text-base" onPress={() => void install()} testID="install">
        Install
      </Button>
    </View>
  );
}
