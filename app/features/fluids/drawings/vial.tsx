import type { Sample } from "@cravix/core/fuel/drain/fuel-sample";
import { FUEL_GRADES, type FuelColour } from "@cravix/core/fuel/grade/fuel-grades";
import Svg, { Circle, Line, Path, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../../ui/paint/use-palette";

/** Colours of a fuel sample by dye; shape and letter show the same. */
const TINT: Record<FuelColour, string> = {
  blue: "#5B93B8",
  green: "#6FA070",
  red: "#B8655B",
  brown: "#9B7B55",
  straw: "#D9C27A",
  colourless: "#DDE3DF",
};

/** Letter under a sample that is not clean. */
const LETTER: Record<Sample["look"], string> = {
  clean: "",
  water: "W",
  cloudy: "C",
  grit: "G",
  "wrong colour": "?",
  "kerosene smell": "K",
  colourless: "0",
};

export function usualColour(gradeId: string | undefined): FuelColour {
  return FUEL_GRADES.find((grade) => grade.id === gradeId)?.colours[0] ?? "blue";
}

/** One sample as it looked: water below fuel, sediment, cloudiness, another colour; empty before it is taken. */
export function Vial({
  sample,
  usual,
  size = 44,
}: {
  sample: Sample | undefined;
  usual: FuelColour;
  size?: number;
}) {
  const { ink, stone, paper, clay } = usePalette();
  const tint = TINT[sample?.look === "colourless" ? "colourless" : (sample?.colour ?? usual)];
  const look = sample?.look;
  return (
    <Svg width={size} height={size * 1.3} viewBox="0 0 40 52" aria-hidden>
      <Path
        d="M11 4 H29 V36 Q29 46 20 46 Q11 46 11 36 Z"
        fill={sample ? tint : paper}
        stroke={ink}
        strokeWidth={2.5}
        {...(!sample && { strokeDasharray: "4 3" })}
      />
      {look === "water" && (
        <Path d="M11 30 H29 V36 Q29 46 20 46 Q11 46 11 36 Z" fill={paper} stroke={ink} strokeWidth={2} />
      )}
      {look === "cloudy" && <Rect x={12} y={8} width={16} height={30} fill={stone} opacity={0.85} />}
      {look === "grit" &&
        [14, 18, 22, 25].map((x, i) => <Circle key={x} cx={x} cy={39 + (i % 2) * 3} r={1.8} fill={ink} />)}
      {look === "wrong colour" && <Line x1={12} x2={28} y1={8} y2={38} stroke={ink} strokeWidth={2.5} />}
      {look === "kerosene smell" && (
        <Path d="M14 2 Q17 -2 20 2 T26 2" stroke={clay} strokeWidth={2.5} fill="none" />
      )}
      {look === "clean" && <Path d="M14 24 L18.5 29 L26 17" fill="none" stroke={ink} strokeWidth={3.5} />}
      {look && look !== "clean" && (
        <SvgText x={20} y={26} fontSize={17} fill={ink} textAnchor="middle" fontFamily="AtkinsonNextBold">
          {LETTER[look]}
        </SvgText>
      )}
    </Svg>
  );
}
