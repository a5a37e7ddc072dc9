import { useLocalSearchParams } from "expo-router";
import { ReleaseScreen } from "../../../../features/maintenance/release-screen";

export default function Release() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <ReleaseScreen registration={registration} />;
}
