import { armOf, type PathPoint } from "@cravix/core/mass-and-balance/load-path";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { formatNumber } from "@cravix/core/units/format";
import { useState } from "react";
import { type LayoutChangeEvent, View } from "react-native";
import Svg, { Circle, Line, Polygon, Polyline, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../ui/paint/use-palette";

const PAD = { left: 46, right: 16, top: 14, bottom: 30 };
const LABEL_PX = 15;
const WORDS = { "take-off": "take-off", landing: "landing", "zero fuel": "zero fuel" } as const;

/** Mass against CG: the envelope, and the path from take-off to zero fuel. */
export function EnvelopeDrawing({
  profile,
  points,
  outside,
  height,
}: {
  profile: Pick<LoadingProfile, "envelope">;
  points: readonly PathPoint[];
  outside: boolean;
  height: number;
}) {
  const { ink, stone, clay, voice, chock } = usePalette();
  const [width, setWidth] = useState(340);
  const measure = ({ nativeEvent }: LayoutChangeEvent) => setWidth(Math.floor(nativeEvent.layout.width));
  const { corners } = profile.envelope;
  const flown = points.slice(points.findIndex(({ name }) => name === "take-off"));
  const arms = [...corners.map(({ armMm }) => armMm), ...flown.map(armOf)];
  const masses = [...corners.map(({ kg }) => kg), ...flown.map(({ kg }) => kg)];
  const span = (values: number[]) => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const room = (high - low || 1) * 0.06;
    return [low - room, high + room] as const;
  };
  const [minArm, maxArm] = span(arms);
  const [minKg, maxKg] = span(masses);
  const x = (arm: number) => PAD.left + ((arm - minArm) / (maxArm - minArm)) * (width - PAD.left - PAD.right);
  const y = (kg: number) =>
    height - PAD.bottom - ((kg - minKg) / (maxKg - minKg)) * (height - PAD.top - PAD.bottom);
  const way = outside ? clay : ink;
  // Overlapping labels are moved down.
  const labels = new Map<string, number>();
  let above = Number.NEGATIVE_INFINITY;
  for (const { name, kg } of [...flown].sort((a, b) => b.kg - a.kg)) {
    if (!name || name === "start") continue;
    above = Math.max(y(kg) + 4, above + LABEL_PX);
    labels.set(name, above);
  }
  const text = { fontFamily: "AtkinsonNext", fontSize: 12 } as const;
  return (
    <View onLayout={measure} testID="envelope">
      <Svg
        width={width}
        height={height}
        role="img"
        aria-label="Mass and balance envelope, with this load from take-off to zero fuel"
      >
        <Rect
          x={PAD.left}
          y={PAD.top}
          width={Math.max(0, width - PAD.left - PAD.right)}
          height={height - PAD.top - PAD.bottom}
          fill="none"
          stroke={stone}
        />
        <Polygon
          points={corners.map(({ kg, armMm }) => `${x(armMm)},${y(kg)}`).join(" ")}
          fill={stone}
          stroke={voice}
          strokeWidth={2}
        />
        <Polyline
          points={flown.map((point) => `${x(armOf(point))},${y(point.kg)}`).join(" ")}
          fill="none"
          stroke={way}
          strokeWidth={3}
        />
        {flown.map((point) => {
          if (!point.name || point.name === "start") return null;
          const at = { x: x(armOf(point)), y: y(point.kg) };
          const toLeft = at.x > width * 0.68;
          return [
            point.name === "take-off" ? (
              <Circle
                key="dot"
                cx={at.x}
                cy={at.y}
                r={8}
                fill={outside ? clay : chock}
                stroke={ink}
                strokeWidth={2}
              />
            ) : (
              <Circle key={`${point.name} dot`} cx={at.x} cy={at.y} r={5} fill={way} />
            ),
            // Drawn in two layers, so that limits do not cross labels.
            ...(["edge", "words"] as const).map((layer) => (
              <SvgText
                key={`${point.name} ${layer}`}
                {...text}
                x={at.x + (toLeft ? -12 : 12)}
                y={labels.get(point.name ?? "") ?? at.y}
                fill={layer === "edge" ? stone : ink}
                {...(layer === "edge" && { stroke: stone, strokeWidth: 5, strokeLinejoin: "round" as const })}
                textAnchor={toLeft ? "end" : "start"}
              >
                {`${WORDS[point.name as keyof typeof WORDS]} ${formatNumber(point.kg)} kg`}
              </SvgText>
            )),
          ];
        })}
        {corners
          .filter(({ kg }, i) => corners.findIndex((one) => one.kg === kg) === i)
          .map(({ kg }) => (
            <SvgText key={kg} {...text} x={PAD.left - 6} y={y(kg) + 4} fill={voice} textAnchor="end">
              {formatNumber(kg)}
            </SvgText>
          ))}
        {[Math.min(...corners.map((c) => c.armMm)), Math.max(...corners.map((c) => c.armMm))].map((arm) => (
          <SvgText key={arm} {...text} x={x(arm)} y={height - 12} fill={voice} textAnchor="middle">
            {`${formatNumber(arm)} mm`}
          </SvgText>
        ))}
        <Line
          x1={PAD.left}
          x2={width - PAD.right}
          y1={height - PAD.bottom}
          y2={height - PAD.bottom}
          stroke={voice}
          strokeWidth={1}
        />
      </Svg>
    </View>
  );
}
