import { WalksScreen } from "../../../features/walks/walks-screen";

export default function Walks() {
  return <WalksScreen />;
}
