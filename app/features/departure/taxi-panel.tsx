import { READING } from "@cravix/core/readings/reading-keys";
import { controlsForWind, type TaxiControls } from "@cravix/core/taxi/controls-for-wind";
import { formatNumber } from "@cravix/core/units/format";
import { reportedWind } from "@cravix/core/verdict/judges/wind-now";
import { useState } from "react";
import { View } from "react-native";
import Svg, { G, Path, Rect } from "react-native-svg";
import { Stepper } from "../../ui/input/stepper";
import { usePalette } from "../../ui/paint/use-palette";
import { Heading, Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";

const STEP = 30;

/** Control positions for the wind on this taxi leg: answered while stopped, never while rolling. */
export function TaxiPanel({ preflight }: { preflight: LoadedPreflight }) {
  const { list, state } = preflight;
  const [heading, setHeading] = useState(() => list.airfield?.runways[0]?.headingDeg ?? 360);
  const sock = state.readings[READING.windFrom]?.value;
  const reported = reportedWind(preflight)?.fromDeg;
  const fromDeg = sock ?? reported;
  if (fromDeg === undefined)
    return (
      <View className="gap-1" testID="taxi">
        <Heading className="text-lg">Control positions for the wind</Heading>
        <Text className="text-voice">
          Wind not known yet: check the windsock. Headwind: ailerons into the wind. Tailwind: dive away from
          the wind.
        </Text>
      </View>
    );
  const controls = controlsForWind(heading % 360, fromDeg % 360, list.type.tailwheel);
  return (
    <View className="gap-2" testID="taxi">
      <Heading className="text-lg">Control positions for the wind</Heading>
      <View className="flex-row items-center gap-4">
        <View className="w-[150px] shrink-0">
          <Drawn controls={controls} angleDeg={fromDeg - heading} />
        </View>
        <Text className="shrink font-mid">{controls.words}</Text>
      </View>
      <Text className="text-sm text-voice">{`Wind from ${formatNumber(fromDeg)}°${sock === undefined ? ", from the report" : ", from the windsock"}. Taxi heading:`}</Text>
      <Stepper
        text={`${String(heading).padStart(3, "0")}°`}
        step={STEP}
        unit="degrees"
        testID="leg"
        onStep={(by) => setHeading(((heading + by + 359) % 360) + 1)}
      />
    </View>
  );
}

/** The aircraft from behind: raised surfaces are filled, lowered ones outlined. */
function Drawn({ controls, angleDeg }: { controls: TaxiControls; angleDeg: number }) {
  const { ink, stone, chock, paper } = usePalette();
  const fromRight = controls.quarter.startsWith("right");
  const up = (side: "left" | "right") => (controls.windward === "up") === ((side === "right") === fromRight);
  const aileron = (x: number, side: "left" | "right") => (
    <Rect
      x={x}
      y={up(side) ? 50 : 62}
      width={34}
      height={8}
      fill={up(side) ? chock : paper}
      stroke={ink}
      strokeWidth={2}
    />
  );
  const elevatorY = controls.elevator === "up" ? 104 : controls.elevator === "down" ? 116 : 110;
  return (
    <Svg width={150} height={150} viewBox="0 0 150 150" role="img" aria-label={controls.words}>
      <G rotation={angleDeg} origin="75, 75">
        <Path d="M71 1 H79 V15 H87 L75 29 L63 15 H71 Z" fill={ink} />
      </G>
      <Path d="M70 34 Q75 26 80 34 L82 104 H68 Z" fill={stone} stroke={ink} strokeWidth={2} />
      <Path d="M14 54 H136 V62 H14 Z" fill={stone} stroke={ink} strokeWidth={2} />
      {aileron(16, "left")}
      {aileron(100, "right")}
      <Rect
        x={52}
        y={elevatorY}
        width={46}
        height={8}
        fill={controls.elevator === "neutral" ? paper : chock}
        stroke={ink}
        strokeWidth={2}
      />
    </Svg>
  );
}
