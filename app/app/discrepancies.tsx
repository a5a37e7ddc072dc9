import { DiscrepanciesScreen } from "../features/discrepancies/discrepancies-screen";

export default function Discrepancies() {
  return <DiscrepanciesScreen />;
}
