import { useLocalSearchParams } from "expo-router";
import { ComponentsScreen } from "../../../../features/maintenance/components-screen";

export default function Components() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <ComponentsScreen registration={registration} />;
}
