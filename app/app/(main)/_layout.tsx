import { Slot } from "expo-router";
import { Shell } from "../../features/shell/shell";

export default function House() {
  return (
    <Shell>
      <Slot />
    </Shell>
  );
}
