import { WalksScreen } from "../../../features/preflights/preflights-screen";

export default function Walks() {
  return <WalksScreen />;
}
