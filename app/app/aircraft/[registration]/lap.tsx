import { useLocalSearchParams } from "expo-router";
import { LapScreen } from "../../../features/lap";

export default function Lap() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <LapScreen registration={registration} />;
}
