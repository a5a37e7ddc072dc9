import { blockedBy } from "@cravix/core/ledger/blocked-by";
import { CORNER, cornerText, STICK_CORNERS, type StickCorner, surfacesFor } from "@cravix/core/run-up";
import { capital } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import Svg, { Circle, Line, Path, Rect } from "react-native-svg";
import { speak } from "../../device/platform/speech";
import { Alert } from "../../ui/alert";
import { Screen } from "../../ui/frame/screen";
import { goBack } from "../../ui/go-back";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { Caution } from "../../ui/judgement-card";
import { PageHead } from "../../ui/page-head";
import { usePalette } from "../../ui/paint/use-palette";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type FoldedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";

type Place = StickCorner | "rudder left" | "rudder right";
const PLACES: readonly Place[] = [...STICK_CORNERS, "rudder left", "rudder right"];

/** Buttons arranged like the stick positions. */
const AS_A_BOX: readonly Place[] = [
  "forward left",
  "forward right",
  "back left",
  "back right",
  "rudder left",
  "rudder right",
];

/** Control check drill: for each corner, the aircraft from behind as it must look. */
export function ControlsScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Drill folded={folded} />}</PreflightFrame>;
}

function Drill({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const wide = useWide();
  const [at, setAt] = useState(0);
  const [seen, setSeen] = useState<ReadonlySet<Place>>(new Set());
  const place = PLACES[at] ?? "forward left";
  const item = preflight.list.items.find((i) => i.drill === "controls");
  const back = () => goBack(`/preflight/${preflight.state.id}`);
  const corner = STICK_CORNERS.find((c) => c === place);
  const pedal = place === "rudder left" ? "left" : place === "rudder right" ? "right" : "neutral";
  const words = corner ? cornerText(corner) : `Rudder ${pedal}: trailing edge ${pedal}`;
  const right = () => {
    const next = new Set([...seen, place]);
    setSeen(next);
    const open = PLACES.findIndex((p) => !next.has(p));
    if (open >= 0) {
      setAt(open);
      const to = PLACES[open];
      const nextCorner = STICK_CORNERS.find((c) => c === to);
      speak(nextCorner ?? to ?? "");
    }
  };
  const all = seen.size === PLACES.length;
  // Something must come first (brakes, on this type): it is shown, and the answer waits.
  const block = item && blockedBy(preflight.list, preflight.state, item);
  return (
    <Screen
      actions={
        <View className="gap-2">
          {all && block ? (
            <Button
              tone="primary"
              className="min-h-20"
              textClassName="text-xl"
              testID="primary"
              onPress={back}
            >
              Back: another item comes first
            </Button>
          ) : all ? (
            <Button
              tone="primary"
              className="min-h-20"
              textClassName="text-2xl"
              testID="primary"
              onPress={() => {
                if (item) acts.checked(item);
                back();
              }}
            >
              Free, full, correct
            </Button>
          ) : (
            <Button
              tone="primary"
              className="min-h-20"
              textClassName="text-2xl"
              testID="primary"
              onPress={right}
            >
              Surfaces match
            </Button>
          )}
          <View className="flex-row gap-2">
            <Button tone="deck" className="min-h-14 flex-1" onPress={back}>
              Back
            </Button>
            <Button
              tone="deck"
              className="min-h-14 flex-1"
              testID="wrong-way"
              onPress={() => {
                if (item) acts.found(item, `Controls: at ${place}, wrong direction or not free`, "stop");
                back();
              }}
            >
              Surfaces do not match
            </Button>
          </View>
        </View>
      }
    >
      <PageHead className="text-2xl">{capital(place)}</PageHead>
      <Text className="text-lg">{words}</Text>
      {block && (
        <Alert frame="line" className="my-1">
          {block.why}
        </Alert>
      )}
      <View className={wide ? "flex-row items-center gap-6" : ""}>
        <View className={wide ? "flex-1" : ""}>
          <FromBehind corner={corner} pedal={pedal} label={words} />
        </View>
        <View
          className={`my-2 flex-row flex-wrap justify-center gap-2 ${wide ? "w-[420px]" : ""}`}
          role="group"
          aria-label="Where the stick is"
        >
          {AS_A_BOX.map((p) => (
            <Toggle key={p} on={p === place} className="w-[46%]" onPress={() => setAt(PLACES.indexOf(p))}>
              {`${seen.has(p) ? "● " : ""}${p}`}
            </Toggle>
          ))}
        </View>
      </View>
      <Caution>
        Look at the real surfaces, not only at the drawing. Have a second person outside call what they see,
        always after work on the controls.
      </Caution>
    </Screen>
  );
}

/** The aircraft from behind, with the required trailing edge positions. */
function FromBehind({
  corner,
  pedal,
  label,
}: {
  corner: StickCorner | undefined;
  pedal: "left" | "right" | "neutral";
  label: string;
}) {
  const { ink, stone, chock, paper } = usePalette();
  const places = corner ? surfacesFor(corner, pedal) : surfacesFor("back left", pedal);
  const held = corner && CORNER[corner];
  const dy = (place: "up" | "down" | "neutral") =>
    !corner || place === "neutral" ? 0 : place === "up" ? -22 : 22;
  const flap = (x: number, width: number, y: number, move: number, key: string) => (
    <Path
      key={key}
      d={`M${x} ${y} H${x + width} L${x + width} ${y + move} H${x} Z`}
      fill={move === 0 ? stone : chock}
      stroke={ink}
      strokeWidth={2.5}
      strokeLinejoin="round"
    />
  );
  const rudder = pedal === "left" ? -20 : pedal === "right" ? 20 : 0;
  return (
    <View style={{ aspectRatio: 340 / 190 }} role="img" aria-label={`From behind: ${label}`}>
      <Svg width="100%" height="100%" viewBox="0 0 340 190">
        <Rect x={8} y={92} width={324} height={9} rx={4} fill={stone} stroke={ink} strokeWidth={2.5} />
        <Circle cx={170} cy={104} r={26} fill={stone} stroke={ink} strokeWidth={2.5} />
        <Rect x={112} y={66} width={116} height={7} rx={3} fill={stone} stroke={ink} strokeWidth={2.5} />
        <Path
          d={`M166 80 L168 18 H172 L174 80 Z`}
          fill={stone}
          stroke={ink}
          strokeWidth={2.5}
          strokeLinejoin="round"
        />
        {rudder !== 0 && (
          <Path
            d={`M170 20 L${170 + rudder} 26 L${170 + rudder} 76 L170 80 Z`}
            fill={chock}
            stroke={ink}
            strokeWidth={2.5}
            strokeLinejoin="round"
          />
        )}
        {flap(22, 84, 96, dy(places.leftAileron), "left aileron")}
        {flap(234, 84, 96, dy(places.rightAileron), "right aileron")}
        {flap(118, 46, 69, dy(places.elevator) * 0.75, "left elevator")}
        {flap(176, 46, 69, dy(places.elevator) * 0.75, "right elevator")}
        <Rect x={136} y={140} width={68} height={46} rx={6} fill={paper} stroke={ink} strokeWidth={2.5} />
        <Line x1={136} x2={204} y1={163} y2={163} stroke={stone} strokeWidth={2} />
        <Line x1={170} x2={170} y1={140} y2={186} stroke={stone} strokeWidth={2} />
        <Circle cx={170 + (held?.across ?? 0) * 25} cy={163 + (held?.back ?? 0) * 14} r={8} fill={ink} />
      </Svg>
    </View>
  );
}
