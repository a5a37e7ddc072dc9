import { BarePressable } from "../features/bench/bare-pressable";

export default function Bare() {
  return <BarePressable />;
}
