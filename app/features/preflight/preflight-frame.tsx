import type { ReactNode } from "react";
import { View } from "react-native";
import { NoSuchWalk } from "./around/no-such-preflight";
import { usePreflight } from "./use-preflight";

export type FoldedWalk = NonNullable<ReturnType<typeof usePreflight>["preflight"]>;

/** Common frame of preflight pages: restores the preflight, or says that it is not here. */
export function WalkFrame({ id, children }: { id: string; children: (folded: FoldedWalk) => ReactNode }) {
  const { preflight, missing } = usePreflight(id);
  if (missing) return <NoSuchWalk />;
  return preflight ? children(preflight) : <View className="h-full bg-paper" />;
}
