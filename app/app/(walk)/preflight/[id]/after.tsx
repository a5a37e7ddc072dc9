import { useLocalSearchParams } from "expo-router";
import { AfterScreen } from "../../../../features/after/after-screen";

export default function After() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <AfterScreen id={id} />;
}
