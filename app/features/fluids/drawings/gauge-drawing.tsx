import type { ScaleCalibration } from "@cravix/core/fuel/tanks/tank";
import Svg, { Circle, Line, Path, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../../ui/paint/use-palette";

const R = 74;
const CX = 100;
const CY = 104;

const angle = (part: number) => Math.PI * (1 - part);
const on = (part: number, radius: number) => ({
  x: CX + radius * Math.cos(angle(part)),
  y: CY - radius * Math.sin(angle(part)),
});

/** Reading at a point of the dial, rounded to a mark. */
export function gaugeAtPoint({ points }: ScaleCalibration, x: number, y: number): number {
  const most = points.at(-1)?.at ?? 1;
  const turn = Math.atan2(CY - y * 122, x * 200 - CX);
  const part = 1 - Math.min(Math.PI, Math.max(0, turn < -Math.PI / 2 ? Math.PI : turn)) / Math.PI;
  return Math.min(most, Math.max(0, Math.round(part * most)));
}

/** Fuel gauge of one tank with its own scale. */
export function GaugeDrawing({ gauge, value }: { gauge: ScaleCalibration; value: number | undefined }) {
  const { ink, stone, clay, voice } = usePalette();
  const most = gauge.points.at(-1)?.at ?? 1;
  const tip = value === undefined ? undefined : on(Math.min(1, value / most), R - 14);
  const end = on(0, R);
  const start = on(1, R);
  return (
    <Svg width="100%" height="100%" viewBox="0 0 200 122" aria-hidden>
      <Path
        d={`M${end.x} ${end.y} A${R} ${R} 0 0 1 ${start.x} ${start.y} Z`}
        fill={stone}
        stroke={ink}
        strokeWidth={3}
      />
      {Array.from({ length: 9 }, (_, i) => i / 8).map((part) => {
        const long = Number.isInteger(part * 4);
        const [a, b] = [on(part, R - 3), on(part, R - (long ? 16 : 10))];
        return (
          <Line
            key={part}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            stroke={part === 0 ? clay : ink}
            strokeWidth={long ? 4 : 2}
          />
        );
      })}
      {[0, 0.25, 0.5, 0.75, 1].map((part) => {
        const at = on(part, R + 13);
        return (
          <SvgText
            key={part}
            x={at.x}
            y={at.y + (part === 0 || part === 1 ? 0 : 4)}
            fontSize={13}
            fill={voice}
            textAnchor="middle"
            fontFamily="AtkinsonNext"
          >
            {String(Math.round(part * most))}
          </SvgText>
        );
      })}
      {tip && (
        <Line x1={CX} y1={CY} x2={tip.x} y2={tip.y} stroke={ink} strokeWidth={5} strokeLinecap="round" />
      )}
      <Circle cx={CX} cy={CY} r={7} fill={ink} />
    </Svg>
  );
}
