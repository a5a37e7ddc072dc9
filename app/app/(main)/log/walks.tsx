import { PreflightsScreen } from "../../../features/preflights/preflights-screen";

export default function Walks() {
  return <PreflightsScreen />;
}
