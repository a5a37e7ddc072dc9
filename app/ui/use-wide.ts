import { useWindowDimensions } from "react-native";

/** True if plan, list and reasons fit side by side. */
export function useWide(): boolean {
  return useWindowDimensions().width >= 1000;
}
