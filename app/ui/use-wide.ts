import { useWindowDimensions } from "react-native";

/** Whether plan, list and reasons fit side by side. */
export function useWide(): boolean {
  return useWindowDimensions().width >= 1000;
}
