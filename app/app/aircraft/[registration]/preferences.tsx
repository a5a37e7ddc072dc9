import { useLocalSearchParams } from "expo-router";
import { PreferencesScreen } from "../../../features/preferences";

export default function Preferences() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <PreferencesScreen registration={registration} />;
}
