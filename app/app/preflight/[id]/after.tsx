import { useLocalSearchParams } from "expo-router";
import { AfterScreen } from "../../../features/after";

export default function After() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <AfterScreen id={id} />;
}
