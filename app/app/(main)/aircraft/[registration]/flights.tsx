import { useLocalSearchParams } from "expo-router";
import { FlightsScreen } from "../../../../features/technical-log/flights-screen";

export default function Flights() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <FlightsScreen registration={registration} />;
}
