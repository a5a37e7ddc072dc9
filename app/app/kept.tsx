import { KeptScreen } from "../features/sync/kept-screen";

export default function Kept() {
  return <KeptScreen />;
}
