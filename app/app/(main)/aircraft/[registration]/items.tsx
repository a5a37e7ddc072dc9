import { useLocalSearchParams } from "expo-router";
import { OwnItemsScreen } from "../../../../features/own-items/own-items-screen";

export default function Items() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <OwnItemsScreen registration={registration} />;
}
