import { DiscrepanciesScreen } from "../features/discrepancies";

export default function Discrepancies() {
  return <DiscrepanciesScreen />;
}
