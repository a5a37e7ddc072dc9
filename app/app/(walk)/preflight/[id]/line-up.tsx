import { useLocalSearchParams } from "expo-router";
import { LineUpScreen } from "../../../../features/line-up/line-up-screen";

export default function LineUp() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <LineUpScreen id={id} />;
}
