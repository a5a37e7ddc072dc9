import Svg, { Circle } from "react-native-svg";
import { usePalette } from "./paint/use-palette";

/** Good is a filled bead, as on the progress line. */
export function GoodMark() {
  const { ink } = usePalette();
  return (
    <Svg width={20} height={24} viewBox="0 0 20 24" aria-label="Good:">
      <Circle cx={10} cy={12} r={6} fill={ink} />
    </Svg>
  );
}
