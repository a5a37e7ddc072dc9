import type { PlanView as Plan } from "@cravix/core/aircraft/aircraft-type";
import { memo, useState } from "react";
import { Pressable, View } from "react-native";
import Svg, { Circle, Path, Text as SvgText } from "react-native-svg";
import { usePalette } from "../paint/use-palette";
import { useRoutePath } from "./use-route-path";

export interface Bead {
  stationId: string;
  name: string;
  x: number;
  y: number;
  state: "ahead" | "here" | "done";
  /** Has a discrepancy, new or known. */
  flagged: boolean;
  /** Unanswered items. */
  left: number;
  detail: string;
}

interface PlanViewProps {
  plan: Plan;
  beads: Bead[];
  onPress?: (stationId: string) => void;
  /** Numbers the beads in order. */
  numbered?: boolean;
}

const MARGIN = 24;
/** Minimum scale for tappable beads; below it the plan is only displayed. */
const MIN_TO_TOUCH = 0.8;
const MIN_OF_WIDTH = 0.9;

/** The aircraft from above, with the route around it and stations as beads. */
export const PlanView = memo(function PlanView({ plan, beads, onPress, numbered }: PlanViewProps) {
  const colours = usePalette();
  const [box, setBox] = useState({ width: 0, height: 0 });
  const width = plan.width + 2 * MARGIN;
  const height = plan.height + 2 * MARGIN;
  const scale = Math.min(box.width / width, box.height / height);
  const left = (box.width - width * scale) / 2;
  const top = (box.height - height * scale) / 2;
  const touchable = scale >= MIN_TO_TOUCH || scale >= (MIN_OF_WIDTH * box.width) / width;
  // The done part ends before the first open station, so that a skipped one leaves a visible gap.
  const open = beads.findIndex((bead) => bead.left > 0);
  const walked = open >= 0 ? open : beads.length;
  const { done, ahead } = useRoutePath(beads, walked);
  return (
    <View
      className="flex-1"
      onLayout={({ nativeEvent: { layout } }) => setBox({ width: layout.width, height: layout.height })}
    >
      {scale > 0 && (
        <>
          <Svg width="100%" height="100%" viewBox={`${-MARGIN} ${-MARGIN} ${width} ${height}`} aria-hidden>
            {plan.bodies.map((body) => (
              <Path
                key={body.d}
                d={body.d}
                fill={body.tone === "body" ? colours.stone : "none"}
                stroke={colours.ink}
                strokeWidth={body.tone === "body" ? 2.5 : 2}
                strokeLinejoin="round"
                strokeLinecap="round"
              />
            ))}
            <Path d={ahead} fill="none" stroke={colours.chock} strokeWidth={5} strokeLinecap="round" />
            <Path d={done} fill="none" stroke={colours.ink} strokeWidth={5} strokeLinecap="round" />
            {beads.map((bead, i) =>
              numbered ? (
                <NumberedBead key={bead.stationId} bead={bead} number={i + 1} />
              ) : (
                <BeadShape key={bead.stationId} bead={bead} />
              ),
            )}
          </Svg>
          {onPress &&
            touchable &&
            beads.map((bead) => (
              <Pressable
                key={bead.stationId}
                role="button"
                aria-label={`${bead.name}, ${bead.detail}`}
                onPress={() => onPress(bead.stationId)}
                style={{
                  position: "absolute",
                  width: 44,
                  height: 44,
                  left: left + (bead.x + MARGIN) * scale - 22,
                  top: top + (bead.y + MARGIN) * scale - 22,
                }}
              />
            ))}
        </>
      )}
    </View>
  );
});

function NumberedBead({ bead: { x, y }, number }: { bead: Bead; number: number }) {
  const { ink, chock, paper, onChock } = usePalette();
  const first = number === 1;
  return (
    <>
      <Circle cx={x} cy={y} r={12} fill={first ? chock : paper} stroke={ink} strokeWidth={2.5} />
      <SvgText
        x={x}
        y={y + 5}
        textAnchor="middle"
        fontFamily="AtkinsonNextBold"
        fontSize={14}
        fill={first ? onChock : ink}
      >
        {String(number)}
      </SvgText>
    </>
  );
}

function BeadShape({ bead: { x, y, state, flagged } }: { bead: Bead }) {
  const { ink, chock, clay, paper } = usePalette();
  const here = state === "here";
  const size = here ? 17 : 9;
  if (flagged)
    return (
      <>
        {here && <Circle cx={x} cy={y} r={17} fill={chock} stroke={ink} strokeWidth={3.5} />}
        <Path
          d={`M${x - 10} ${y - 9} H${x + 10} L${x} ${y + 10} Z`}
          fill={clay}
          stroke={here ? clay : paper}
          strokeWidth={2}
          strokeLinejoin="round"
        />
      </>
    );
  return (
    <Circle
      cx={x}
      cy={y}
      r={size}
      fill={here ? chock : state === "done" ? ink : paper}
      stroke={state === "done" ? paper : ink}
      strokeWidth={here ? 3.5 : 3}
    />
  );
}
