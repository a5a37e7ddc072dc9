import { lazy, Suspense } from "react";
import { View } from "react-native";
import { Text } from "../../ui/text";
import type { PhotographsProps } from "./photograph-strip";

const PhotographStrip = lazy(async () => {
  try {
    return { default: (await import("./photograph-strip")).PhotographStrip };
  } catch {
    // Whoever logs a finding without a network is not kept from it by a part that has not come.
    return { default: NotHere };
  }
});

/** As high as what comes: it moves nothing away from under a thumb. */
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

/** The photographs of one discrepancy. A part of its own: the log and the walk both show it, and what two pages share is fetched with the first page. */
export function Photographs(props: PhotographsProps) {
  if (props.photographs.length === 0 && !props.onAdd) return null;
  return (
    <Suspense fallback={<Room {...props} />}>
      <PhotographStrip {...props} />
    </Suspense>
  );
}
