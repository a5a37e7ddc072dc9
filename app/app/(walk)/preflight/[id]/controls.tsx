import { useLocalSearchParams } from "expo-router";
import { ControlsScreen } from "../../../../features/run-up-desk/controls-screen";

export default function Controls() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ControlsScreen id={id} />;
}
