import { lazy, Suspense } from "react";
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

function NotHere() {
  return <Text className="text-sm text-voice">Photographs come when there is a network again.</Text>;
}

/** The photographs of one discrepancy. A part of its own: the log and the walk both show it, and what two pages share is fetched with the first page. */
export function Photographs(props: PhotographsProps) {
  if (props.photographs.length === 0 && !props.onAdd) return null;
  return (
    <Suspense fallback={null}>
      <PhotographStrip {...props} />
    </Suspense>
  );
}
