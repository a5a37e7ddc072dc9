import { useLocalSearchParams } from "expo-router";
import { StartScreen } from "../../../../features/start/start-screen";

export default function Prepare() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <StartScreen registration={registration} />;
}
