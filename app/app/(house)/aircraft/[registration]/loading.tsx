import { useLocalSearchParams } from "expo-router";
import { LoadingScreen } from "../../../../features/loading/loading-screen";

export default function Loading() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <LoadingScreen registration={registration} />;
}
