import { engineRunUpAt } from "@cravix/core/checklist/engine-run-up-at";
import { isReadingOf, READING } from "@cravix/core/readings/reading-keys";
import { formatNumber } from "@cravix/core/units/format";
import { router } from "expo-router";
import { View } from "react-native";
import Svg, { Line, Path, Rect } from "react-native-svg";
import { Button } from "../../ui/input/button";
import { JudgementCard } from "../../ui/judgement-card";
import { usePalette } from "../../ui/paint/use-palette";
import { Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";

const MAGNETO_READINGS = [READING.magnetoBase, READING.magnetoRight, READING.magnetoLeft];

/** Run-up so far: both drops below the run-up rpm with the limit, and the judgements of this phase. */
export function RunUpPanel({ preflight }: { preflight: LoadedPreflight }) {
  const { state, judged, list } = preflight;
  const base = state.readings[READING.magnetoBase]?.value;
  const showMagnetos =
    MAGNETO_READINGS.some((kind) => isReadingOf(preflight.item?.reading?.key, kind)) && base !== undefined;
  const itemIds = new Set(
    list.items
      .filter(
        (i) => preflight.phase && list.stations.find((s) => s.id === i.station)?.phase === preflight.phase,
      )
      .map((i) => i.id),
  );
  const made = judged.judgements.filter(
    (j) => j.itemIds?.some((itemId) => itemIds.has(itemId)) && !j.itemIds?.includes(preflight.item?.id ?? ""),
  );
  return (
    <View className="gap-2">
      <RunUpDoors preflight={preflight} />
      {showMagnetos && <MagnetoDrops preflight={preflight} base={base} />}
      {[...made].reverse().map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
    </View>
  );
}

/** Links to the engine's run-up page and the control check drill. */
function RunUpDoors({ preflight }: { preflight: LoadedPreflight }) {
  const { list, state, item } = preflight;
  if (!item) return null;
  const page = (name: string) => router.push(`/preflight/${state.id}/${name}` as "/");
  if (item.drill === "controls")
    return (
      <Button className="min-h-16" testID="controls-drill" onPress={() => page("controls")}>
        Control check with drawings
      </Button>
    );
  if (!list.type.runUp || preflight.phase !== "run-up") return null;
  const engine = engineRunUpAt(list, item.station)?.engine ?? list.type.engines?.[0];
  return (
    <Button
      className="min-h-16"
      testID="open-run-up"
      onPress={() => page(engine ? `run-up?engine=${engine}` : "run-up")}
    >
      Open the run-up
    </Button>
  );
}

function MagnetoDrops({ preflight, base }: { preflight: LoadedPreflight; base: number }) {
  const { ink, stone, clay } = usePalette();
  const limits = preflight.list.type.magnetos;
  const { magnetos } = preflight.judged;
  const deepest =
    Math.max(limits?.maxDropRpm ?? 100, magnetos?.rightDropRpm ?? 0, magnetos?.leftDropRpm ?? 0) * 1.25;
  const y = (drop: number) => 10 + (Math.max(0, Math.min(drop, deepest)) / deepest) * 80;
  const trough = (from: number, drop: number | undefined) =>
    drop === undefined
      ? `H${from + 110}`
      : `H${from} L${from + 14} ${y(drop)} H${from + 86} L${from + 100} 10 H${from + 110}`;
  const word = (drop: number | undefined) =>
    drop === undefined ? "–" : `−${formatNumber(drop)}`.replace("−−", "+");
  return (
    <View>
      <Text className="text-sm text-voice">
        Drop from {formatNumber(base)} rpm
        {limits?.maxDropRpm ? `; maximum drop ${formatNumber(limits.maxDropRpm)}` : ""}
      </Text>
      <View className="h-24" aria-hidden>
        <Svg width="100%" height="100%" viewBox="0 0 340 100" preserveAspectRatio="none">
          <Rect
            x={0}
            y={10}
            width={340}
            height={limits?.maxDropRpm ? y(limits.maxDropRpm) - 10 : 0}
            fill={stone}
          />
          {limits?.maxDropRpm && (
            <Line
              x1={0}
              x2={340}
              y1={y(limits.maxDropRpm)}
              y2={y(limits.maxDropRpm)}
              stroke={clay}
              strokeWidth={2}
              strokeDasharray="8 6"
            />
          )}
          <Path
            d={`M0 10 ${trough(30, magnetos?.rightDropRpm)} ${trough(190, magnetos?.leftDropRpm)} H340`}
            fill="none"
            stroke={ink}
            strokeWidth={4}
            strokeLinejoin="round"
          />
        </Svg>
      </View>
      <View className="flex-row justify-around">
        {(
          [
            ["right", word(magnetos?.rightDropRpm)],
            ["left", word(magnetos?.leftDropRpm)],
            [
              "difference",
              magnetos?.differenceRpm === undefined ? "–" : formatNumber(magnetos.differenceRpm),
            ],
          ] as const
        ).map(([name, value]) => (
          <View key={name} className="items-center">
            <Text className="font-strong text-xl">{value}</Text>
            <Text className="text-sm text-voice">{name}</Text>
          </View>
        ))}
      </View>
    </View>
  );
}
