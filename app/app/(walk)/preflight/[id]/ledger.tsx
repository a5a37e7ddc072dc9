import { useLocalSearchParams } from "expo-router";
import { LedgerScreen } from "../../../../features/ledger/ledger-screen";

export default function Ledger() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <LedgerScreen id={id} />;
}
