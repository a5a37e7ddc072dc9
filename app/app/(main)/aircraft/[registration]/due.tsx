import { useLocalSearchParams } from "expo-router";
import { DueScreen } from "../../../../features/due/due-screen";

export default function Due() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <DueScreen registration={registration} />;
}
