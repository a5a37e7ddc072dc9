import { useLocalSearchParams } from "expo-router";
import { PreferencesScreen } from "../../../../features/preferences/preferences-screen";

export default function Preferences() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <PreferencesScreen registration={registration} />;
}
