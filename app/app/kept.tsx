import { KeptScreen } from "../features/sync";

export default function Kept() {
  return <KeptScreen />;
}
