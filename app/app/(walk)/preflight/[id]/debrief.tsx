import { useLocalSearchParams } from "expo-router";
import { DebriefScreen } from "../../../../features/debrief/debrief-screen";

export default function Debrief() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DebriefScreen id={id} />;
}
