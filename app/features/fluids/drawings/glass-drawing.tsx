import type { ScaleCalibration } from "@cravix/core/fuel/tanks/tank";
import Svg, { Circle, Line, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../../ui/paint/use-palette";

const TOP = 10;
const BOTTOM = 150;
const HEIGHT = 160;

/** Reading at a height of the sight glass, to the nearest twentieth. */
export function glassAtHeight(part: number): number {
  const reading = ((BOTTOM - part * HEIGHT) / (BOTTOM - TOP)) * 100;
  return Math.min(100, Math.max(0, Math.round(reading / 5) * 5));
}

/** A sight glass with its column and float. */
export function GlassDrawing({ sight, value }: { sight: ScaleCalibration; value: number | undefined }) {
  const { ink, stone, chock, voice, clay } = usePalette();
  const y = (reading: number) => BOTTOM - (reading / 100) * (BOTTOM - TOP);
  return (
    <Svg width="100%" height="100%" viewBox={`0 0 160 ${HEIGHT}`} aria-hidden>
      <Rect
        x={56}
        y={TOP}
        width={32}
        height={BOTTOM - TOP}
        rx={16}
        fill={stone}
        stroke={ink}
        strokeWidth={3}
      />
      {value !== undefined && (
        <>
          <Rect
            x={59}
            y={y(value)}
            width={26}
            height={Math.max(0, BOTTOM - 3 - y(value))}
            rx={11}
            fill={chock}
          />
          <Circle cx={72} cy={y(value)} r={9} fill={clay} stroke={ink} strokeWidth={2.5} />
        </>
      )}
      {sight.points.map(({ at, litres }) => (
        <Line key={at} x1={88} x2={98} y1={y(at)} y2={y(at)} stroke={ink} strokeWidth={litres > 0 ? 3 : 2} />
      ))}
      {sight.points.map(({ at, litres }) => (
        <SvgText key={`l${at}`} x={104} y={y(at) + 4} fontSize={12} fill={voice} fontFamily="AtkinsonNext">
          {`${litres} L`}
        </SvgText>
      ))}
    </Svg>
  );
}
