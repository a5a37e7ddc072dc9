import { useLocalSearchParams } from "expo-router";
import { SchoolScreen } from "../../../features/school";

export default function School() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <SchoolScreen registration={registration} />;
}
