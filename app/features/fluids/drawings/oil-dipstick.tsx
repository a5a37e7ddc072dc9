import type { OilProfile } from "@cravix/core/oil/judge-oil";
import { formatNumber } from "@cravix/core/units/format";
import Svg, { G, Line, Path, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../../ui/paint/use-palette";

const TOP = 14;
const BOTTOM = 152;
const HEIGHT = 164;

export interface DipstickScale {
  from: number;
  to: number;
  /** Resolution when set by touch. */
  step: number;
}

/** Drawn range of the dipstick: from slightly below the minimum to slightly above the maximum. */
export function dipstickScale(profile: OilProfile | undefined, most: number): DipstickScale {
  const { minimumQt = 0, maximumQt = most } = profile ?? {};
  const spread = Math.max(0.2, maximumQt - minimumQt);
  const step = spread < 1.5 ? 0.1 : 0.5;
  const on = (value: number) => Math.round(value / step) * step;
  return { from: Math.max(0, on(minimumQt - spread)), to: on(Math.min(most, maximumQt + spread / 2)), step };
}

/** Level at a height of the drawing, rounded to a mark. */
export function levelAtHeight({ from, to, step }: DipstickScale, part: number): number {
  const level = from + ((BOTTOM - part * HEIGHT) / (BOTTOM - TOP)) * (to - from);
  return Number((Math.round(Math.min(to, Math.max(from, level)) / step) * step).toFixed(1));
}

interface OilDipstickProps {
  profile: OilProfile | undefined;
  scale: DipstickScale;
  value: number | undefined;
  lastQt?: number | undefined;
  longFlight: boolean;
  /** The other engine of a twin, on the same scale. */
  other?: { name: string; value: number | undefined } | undefined;
}

/** Minimum distance between labels. */
const LINE = 14;

/** Dipstick of this engine: minimum, maximum, overboard level, last reading, and the current level. */
export function OilDipstick({ profile, scale, value, lastQt, longFlight, other }: OilDipstickProps) {
  const { ink, stone, chock, clay, voice, paper } = usePalette();
  const y = (qt: number) => BOTTOM - ((qt - scale.from) / (scale.to - scale.from)) * (BOTTOM - TOP);
  const inside = (qt: number | undefined): qt is number =>
    qt !== undefined && qt >= scale.from && qt <= scale.to;
  const { minimumQt, longFlightMinimumQt, maximumQt, throwsOffQt } = profile ?? {};
  const least = longFlight ? (longFlightMinimumQt ?? minimumQt) : minimumQt;
  const lines: [number | undefined, string, string][] = [
    [maximumQt, "max", ink],
    [throwsOffQt !== maximumQt ? throwsOffQt : undefined, "vents above", voice],
    [least, longFlight && longFlightMinimumQt ? "min, long" : "min", clay],
  ];
  // Overlapping labels move down; their marks stay.
  let free = Number.NEGATIVE_INFINITY;
  const labels = lines.flatMap(([qt, words, colour]) => {
    if (!inside(qt)) return [];
    const at = Math.max(y(qt) + 4, free + LINE);
    free = at;
    return [{ qt, words, colour, at }];
  });
  const wet = (qt: number) => y(Math.min(scale.to, Math.max(scale.from, qt)));
  return (
    <Svg width="100%" height="100%" viewBox={`0 0 190 ${other ? HEIGHT + 14 : HEIGHT}`} aria-hidden>
      <Rect x={44} y={2} width={26} height={BOTTOM + 4} rx={6} fill={stone} stroke={ink} strokeWidth={3} />
      {value !== undefined && (
        <Rect
          x={47}
          y={y(Math.min(scale.to, Math.max(scale.from, value)))}
          width={20}
          height={Math.max(0, BOTTOM + 3 - y(Math.min(scale.to, Math.max(scale.from, value))))}
          fill={chock}
        />
      )}
      {labels.map(({ qt, words, colour, at }) => (
        <G key={words}>
          <Line x1={38} x2={78} y1={y(qt)} y2={y(qt)} stroke={colour} strokeWidth={4} />
          <SvgText x={82} y={at} fontSize={13} fill={colour} fontFamily="AtkinsonNextSemiBold">
            {`${words} ${formatNumber(qt, 1)}`}
          </SvgText>
        </G>
      ))}
      {other && (
        <G>
          <Rect x={4} y={2} width={16} height={BOTTOM + 4} rx={5} fill={stone} stroke={ink} strokeWidth={2} />
          {other.value !== undefined && (
            <Rect
              x={6}
              y={wet(other.value)}
              width={12}
              height={Math.max(0, BOTTOM + 3 - wet(other.value))}
              fill={chock}
            />
          )}
          <SvgText x={0} y={HEIGHT + 10} fontSize={12} fill={voice} fontFamily="AtkinsonNext">
            {`${other.name} ${other.value === undefined ? "–" : formatNumber(other.value, 1)}`}
          </SvgText>
        </G>
      )}
      {inside(lastQt) && (
        <Path
          d={`M26 ${y(lastQt) - 6} L38 ${y(lastQt)} L26 ${y(lastQt) + 6} Z`}
          fill={paper}
          stroke={ink}
          strokeWidth={2}
        />
      )}
      {inside(lastQt) && !other && (
        <SvgText
          x={24}
          y={y(lastQt) + 4}
          fontSize={12}
          fill={voice}
          textAnchor="end"
          fontFamily="AtkinsonNext"
        >
          last
        </SvgText>
      )}
    </Svg>
  );
}
