import { useLocalSearchParams } from "expo-router";
import { VerdictScreen } from "../../../../features/verdict/verdict-screen";

export default function Verdict() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <VerdictScreen id={id} />;
}
