import { useLocalSearchParams } from "expo-router";
import { FuelDeskScreen } from "../../../../features/fuel-desk/fuel-desk-screen";

export default function Fuel() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <FuelDeskScreen id={id} />;
}
