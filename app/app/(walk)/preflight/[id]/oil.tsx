import { useLocalSearchParams } from "expo-router";
import { AddOilScreen } from "../../../../features/fluids/add-oil-screen";

export default function Oil() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <AddOilScreen id={id} />;
}
