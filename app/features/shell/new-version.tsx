import { View } from "react-native";
import { loadNewVersion } from "../../device/service-worker";
import { useAppSelector } from "../../store/state/hooks";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";

/** Offers a waiting new version, but never during a preflight on this device. */
export function NewVersion() {
  const waits = useAppSelector((state) => state.version.waits);
  const walking = useAppSelector((state) => state.preflight.open.some((preflight) => !preflight.flying));
  if (!waits || walking) return null;
  return (
    <View
      role="region"
      aria-label="New version"
      aria-live="polite"
      testID="new-version"
      className="flex-row items-center justify-between gap-3 border-b-2 border-ink bg-stone px-[18px] py-1"
    >
      <Text className="shrink font-mid">A new version of Cravix is ready.</Text>
      <Button tone="bare" className="px-0" onPress={loadNewVersion} textClassName="text-base">
        Update now
      </Button>
    </View>
  );
}
