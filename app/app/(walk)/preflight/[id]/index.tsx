import { useLocalSearchParams } from "expo-router";
import { StepScreen } from "../../../../features/walk/step-screen";

export default function Step() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <StepScreen id={id} />;
}
