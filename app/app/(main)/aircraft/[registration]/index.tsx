import { useLocalSearchParams } from "expo-router";
import { AircraftScreen } from "../../../../features/aircraft/aircraft-screen";

export default function OneAircraft() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <AircraftScreen registration={registration} />;
}
