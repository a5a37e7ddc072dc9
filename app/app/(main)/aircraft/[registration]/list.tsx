import { useLocalSearchParams } from "expo-router";
import { ListScreen } from "../../../../features/list/list-screen";

export default function List() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <ListScreen registration={registration} />;
}
