import { DiscrepanciesScreen } from "../../../features/discrepancies/discrepancies-screen";

export default function Log() {
  return <DiscrepanciesScreen />;
}
