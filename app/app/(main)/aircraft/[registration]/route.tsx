import { useLocalSearchParams } from "expo-router";
import { RouteScreen } from "../../../../features/route/route-screen";

export default function Route() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <RouteScreen registration={registration} />;
}
