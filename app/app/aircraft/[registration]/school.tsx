import { useLocalSearchParams } from "expo-router";
import { SchoolScreen } from "../../../features/school/school-screen";

export default function School() {
  const { registration } = useLocalSearchParams<{ registration: string }>();
  return <SchoolScreen registration={registration} />;
}
