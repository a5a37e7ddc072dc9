import type { ReactNode } from "react";
import { View } from "react-native";
import { PreflightNotFound } from "./no-such-preflight";
import { usePreflight } from "./use-preflight";

export type FoldedPreflight = NonNullable<ReturnType<typeof usePreflight>["preflight"]>;

/** Common frame of preflight pages: restores the preflight, or says that it is not here. */
export function PreflightFrame({
  id,
  children,
}: {
  id: string;
  children: (folded: FoldedPreflight) => ReactNode;
}) {
  const { preflight, missing } = usePreflight(id);
  if (missing) return <PreflightNotFound />;
  return preflight ? children(preflight) : <View className="h-full bg-paper" />;
}
