import { PreflightsScreen } from "../../../features/past-preflights/preflights-screen";

export default function Walks() {
  return <PreflightsScreen />;
}
