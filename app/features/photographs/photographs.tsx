import { lazy, Suspense } from "react";
import { View } from "react-native";
import { Text } from "../../ui/text";
import type { PhotographsProps } from "./photograph-strip";

const PhotographStrip = lazy(async () => {
  try {
    return { default: (await import("./photograph-strip")).PhotographStrip };
  } catch {
    // A missing part must not prevent logging a discrepancy offline.
    return { default: NotHere };
  }
});

/** Placeholder of equal height, so that nothing moves. */
function Room({ photographs, onAdd }: PhotographsProps) {
  return (
    <View className="gap-2">
      {photographs.length > 0 && <View className="h-[84px]" />}
      {onAdd && <View className="h-14" />}
    </View>
  );
}

function NotHere() {
  return <Text className="text-sm text-voice">Photos appear when you are online again.</Text>;
}

/** Photos of one discrepancy. Loaded on demand, because log and preflight share it and shared code would go into the first load. */
export function Photographs(props: PhotographsProps) {
  if (props.photographs.length === 0 && !props.onAdd) return null;
  return (
    <Suspense fallback={<Room {...props} />}>
      <PhotographStrip {...props} />
    </Suspense>
  );
}
