import { TodayScreen } from "../features/today/today-screen";

export default function Today() {
  return <TodayScreen />;
}
