import type { Tank } from "@cravix/core/fuel/tanks/tank";
import { dipForVolume, litresPerCm, volumeFromDip } from "@cravix/core/fuel/tanks/volume-from-dip";
import { formatNumber } from "@cravix/core/units/format";
import Svg, { ClipPath, Defs, G, Line, Path, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../../ui/paint/use-palette";

const WIDTH = 216;
const HEIGHT = 170;
const TOP = 12;
const FLOOR = 160;
const MIDDLE = 106;
const HALF = 62;

/** Height of a dip in the drawing, from the top. */
export function heightOfDip(tank: Tank, dipCm: number): number {
  const most = tank.calibration?.points.at(-1)?.dipCm ?? 1;
  return FLOOR - (dipCm / most) * (FLOOR - TOP);
}

/** Dip at a position of the drawing, 0 at the top and 1 at the bottom, to the nearest half centimetre, or to a tab nearby. */
export function dipAtHeight(tank: Tank, part: number): number {
  const most = tank.calibration?.points.at(-1)?.dipCm ?? 1;
  const dip = ((FLOOR - part * HEIGHT) / (FLOOR - TOP)) * most;
  const onDipstick = Math.min(most, Math.max(0, Math.round(dip * 2) / 2));
  const tabs = (tank.marks ?? []).flatMap((mark) =>
    tank.calibration ? [Number(dipForVolume(tank.calibration, mark.litres).toFixed(1))] : [],
  );
  const tab = tabs.find((at) => Math.abs(at - dip) < most / 30);
  return tab ?? onDipstick;
}

/** Section of a tank with widths from its calibration, the dipstick with its marks, and the content. */
export function TankDrawing({
  tank,
  dipCm,
  byLogL,
}: {
  tank: Tank;
  dipCm: number | undefined;
  byLogL?: number | undefined;
}) {
  const { ink, stone, chock, clay, voice, paper } = usePalette();
  const { calibration } = tank;
  if (!calibration) return null;
  const first = calibration.points[0]?.dipCm ?? 0;
  const most = calibration.points.at(-1)?.dipCm ?? 1;
  const heights = Array.from({ length: 33 }, (_, i) => first + ((most - first) * i) / 32);
  const areas = heights.map((dip) => litresPerCm(calibration, dip));
  const widest = Math.max(...areas);
  const half = (area: number) => 16 + (HALF - 16) * (area / widest);
  const side = (sign: 1 | -1) =>
    heights.map((dip, i) => `${MIDDLE + sign * half(areas[i] ?? 0)} ${heightOfDip(tank, dip)}`);
  const outline = `M${side(-1).join(" L")} L${side(1).reverse().join(" L")} Z`;
  const level = (litres: number) => {
    // Nearest calibration point, accurate enough for a drawing.
    const at = heights.findIndex((dip) => volumeFromDip(calibration, dip) >= litres);
    return heightOfDip(tank, heights[at < 0 ? heights.length - 1 : at] ?? 0);
  };
  const surface = dipCm === undefined || dipCm > most ? undefined : heightOfDip(tank, Math.max(first, dipCm));
  const unusable = level(tank.unusableL);
  return (
    <Svg width="100%" height="100%" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Defs>
        <ClipPath id={`tank-${tank.id}`}>
          <Path d={outline} />
        </ClipPath>
      </Defs>
      <Path d={outline} fill={stone} />
      <G clipPath={`url(#tank-${tank.id})`}>
        {surface !== undefined && <Rect x={0} y={surface} width={WIDTH} height={HEIGHT} fill={chock} />}
        {[0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13].map((i) => (
          <Line
            key={i}
            x1={30 + i * 14}
            x2={16 + i * 14}
            y1={unusable}
            y2={unusable + 14}
            stroke={clay}
            strokeWidth={2}
          />
        ))}
      </G>
      <Path d={outline} fill="none" stroke={ink} strokeWidth={3} strokeLinejoin="round" />
      <Rect x={MIDDLE - 5} y={2} width={10} height={FLOOR - 2} fill={paper} stroke={ink} strokeWidth={2} />
      {calibration.points.map(({ dipCm: dip, litres }) => (
        <G key={dip}>
          <Line
            x1={MIDDLE - 5}
            x2={MIDDLE + 5}
            y1={heightOfDip(tank, dip)}
            y2={heightOfDip(tank, dip)}
            stroke={ink}
            strokeWidth={2}
          />
          <SvgText
            x={36}
            y={heightOfDip(tank, dip) + 4}
            fontSize={12}
            fill={voice}
            textAnchor="end"
            fontFamily="AtkinsonNext"
          >
            {`${formatNumber(litres)} L`}
          </SvgText>
        </G>
      ))}
      {(tank.marks ?? []).map((mark) => (
        <G key={mark.name}>
          <Line
            x1={MIDDLE + 12}
            x2={MIDDLE + 44}
            y1={level(mark.litres)}
            y2={level(mark.litres)}
            stroke={ink}
            strokeWidth={4}
          />
          <SvgText
            x={MIDDLE + 14}
            y={level(mark.litres) - 5}
            fontSize={12}
            fill={ink}
            fontFamily="AtkinsonNextSemiBold"
          >
            {`${mark.name} ${mark.litres}`}
          </SvgText>
        </G>
      ))}
      {byLogL !== undefined && byLogL >= 0 && byLogL <= tank.capacityL && (
        <G>
          <Line
            x1={40}
            x2={174}
            y1={level(byLogL)}
            y2={level(byLogL)}
            stroke={ink}
            strokeWidth={2}
            strokeDasharray="5 4"
          />
          <SvgText x={176} y={level(byLogL) + 4} fontSize={12} fill={ink} fontFamily="AtkinsonNextSemiBold">
            {`log ${formatNumber(byLogL)}`}
          </SvgText>
        </G>
      )}
      {surface !== undefined && (
        <Path
          d={`M${MIDDLE - 22} ${surface - 7} L${MIDDLE - 7} ${surface} L${MIDDLE - 22} ${surface + 7} Z`}
          fill={ink}
        />
      )}
    </Svg>
  );
}
