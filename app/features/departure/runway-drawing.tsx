import type { Departure } from "@cravix/core/departure/calculate-departure";
import { formatNumber } from "@cravix/core/units/format";
import Svg, { Line, Path, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../ui/paint/use-palette";

const [WIDTH, HEIGHT, LEFT] = [340, 118, 6];

/** The runway from above: ground roll, fifty feet, distance with safety factor, abort point. */
export function RunwayDrawing({ departure: { runway, takeOff, abort } }: { departure: Departure }) {
  const { ink, stone, chock, clay, paper, voice } = usePalette();
  if (!takeOff || !runway.declared) return null;
  const { toraM, todaM } = runway.declared;
  const whole = Math.max(todaM, takeOff.neededM) * 1.02;
  const x = (metres: number) => LEFT + (metres / whole) * (WIDTH - 2 * LEFT);
  const bad = takeOff.leftM < 0;
  const words = `Take-off from runway ${runway.id}: ground roll ${formatNumber(Math.ceil(takeOff.rollM))} m, ${formatNumber(Math.ceil(takeOff.over50M))} m to 50 ft, ${formatNumber(Math.ceil(takeOff.neededM))} m with safety factor, ${formatNumber(todaM)} m available.`;
  const label = (at: number, y: number, text: string, anchor: "start" | "middle" | "end", fill = ink) => (
    <SvgText x={at} y={y} fontSize={11.5} fontFamily="AtkinsonNext" textAnchor={anchor} fill={fill}>
      {text}
    </SvgText>
  );
  return (
    <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={words}>
      <Rect x={x(0)} y={44} width={x(toraM) - x(0)} height={26} fill={stone} stroke={ink} strokeWidth={1.5} />
      {todaM > toraM && (
        <Rect
          x={x(toraM)}
          y={44}
          width={x(todaM) - x(toraM)}
          height={26}
          fill="none"
          stroke={ink}
          strokeWidth={1.5}
          strokeDasharray="4 3"
        />
      )}
      <Rect x={x(0)} y={49} width={x(takeOff.rollM) - x(0)} height={16} fill={chock} />
      <Path
        d={`M${x(takeOff.rollM)} 57 L${x(takeOff.over50M)} 30`}
        stroke={ink}
        strokeWidth={3}
        fill="none"
        strokeLinecap="round"
      />
      <Line
        x1={x(takeOff.neededM)}
        x2={x(takeOff.neededM)}
        y1={36}
        y2={78}
        stroke={bad ? clay : ink}
        strokeWidth={3}
      />
      {abort && (
        <>
          <Line
            x1={x(abort.mark?.atM ?? abort.atM)}
            x2={x(abort.mark?.atM ?? abort.atM)}
            y1={44}
            y2={84}
            stroke={clay}
            strokeWidth={2.5}
            strokeDasharray="3 2"
          />
          <Path
            d={`M${x(abort.mark?.atM ?? abort.atM) - 5} 94 h10 v-10 h-10 z`}
            fill={paper}
            stroke={clay}
            strokeWidth={2.5}
          />
        </>
      )}
      {label(
        Math.max(x(takeOff.over50M), 70),
        22,
        `50 ft, ${formatNumber(Math.ceil(takeOff.over50M))} m`,
        "middle",
        voice,
      )}
      {label(
        Math.min(x(takeOff.neededM), WIDTH - 4),
        11,
        `with safety factor ${formatNumber(Math.ceil(takeOff.neededM))} m`,
        x(takeOff.neededM) > WIDTH / 2 ? "end" : "start",
        bad ? clay : ink,
      )}
      {abort &&
        label(
          Math.min(Math.max(x(abort.mark?.atM ?? abort.atM), 60), WIDTH - 60),
          108,
          `${formatNumber(abort.speedKt)} kt by ${abort.mark?.name ?? `${formatNumber(abort.atM)} m`}`,
          "middle",
        )}
      {label(x(todaM), 84, `${formatNumber(todaM)} m`, "end", voice)}
    </Svg>
  );
}
