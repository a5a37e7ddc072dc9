import { useLocalSearchParams } from "expo-router";
import { LogsScreen } from "../../../../features/fluid-logs/logs-screen";

export default function Logs() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <LogsScreen registration={registration} />;
}
