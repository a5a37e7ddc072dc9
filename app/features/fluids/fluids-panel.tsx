import { ENDURANCE } from "@cravix/core/fuel/judge-fuel";
import { GRADES } from "@cravix/core/judgement/judgement";
import { isReadingOf, READING, topicOf } from "@cravix/core/readings/reading-keys";
import { wordsOfWalk } from "@cravix/core/verdict/judges/fuel-input";
import { addMinutes } from "date-fns/addMinutes";
import { router } from "expo-router";
import { View } from "react-native";
import Svg, { Line, Rect } from "react-native-svg";
import { clockText } from "../../ui/day-and-time";
import { Button } from "../../ui/input/button";
import { JudgementCard } from "../../ui/judgement-card";
import { usePalette } from "../../ui/paint/use-palette";
import { Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";

/** Fuel so far: litres per tank, time to land by, and problems. */
export function FluidsPanel({ preflight }: { preflight: LoadedPreflight }) {
  const { fuel, oil, judgements } = preflight.judged;
  const { type } = preflight.list;
  const words = wordsOfWalk(preflight.list, preflight.state);
  const tanks = type.fuel?.tanks ?? [];
  if (!type.fuel && !type.oil) return null;
  const typing = preflight.item?.reading?.key;
  const shown = judgements
    .filter(({ topic }) => ["fuel", "oil", "hours", "mass"].includes(topic ?? ""))
    .filter(({ id, grade }) => grade !== "within limits" || (id === ENDURANCE && topicOf(typing) !== "fuel"))
    .filter(({ id }) => !(topicOf(typing) === "fuel" && id === ENDURANCE))
    .sort((a, b) => GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade));
  const page = (name: string) => router.push(`/preflight/${preflight.state.id}/${name}` as "/");
  return (
    <View className="gap-2">
      {fuel && fuel.tanks.length > 0 && (
        <View className="flex-row flex-wrap gap-x-4 gap-y-1">
          {tanks.map((tank) => (
            <View key={tank.id} className="min-w-[28%] flex-1 flex-row items-end gap-2">
              <TankGlass
                litres={fuel.volumesL[tank.id]}
                capacity={tank.capacityL}
                unusable={tank.unusableL}
              />
              <View className="shrink">
                <Text className="text-sm text-voice">{tank.name}</Text>
                <Text className="font-strong text-lg">
                  {fuel.volumesL[tank.id] === undefined
                    ? "not dipped"
                    : words.say(fuel.volumesL[tank.id] ?? 0)}
                </Text>
              </View>
            </View>
          ))}
          {fuel.onGroundWithinMin !== undefined && (
            <View className="min-w-[28%] flex-1">
              <Text className="text-sm text-voice">take-off now: land by</Text>
              <Text className="font-strong text-lg" testID="land-by">
                {clockText(addMinutes(new Date(), Math.floor(fuel.onGroundWithinMin)))}
              </Text>
            </View>
          )}
        </View>
      )}
      <View className="flex-row gap-2">
        {type.fuel && (
          <Button
            className="flex-1"
            textClassName="text-base"
            testID="open-fuel"
            onPress={() => page("fuel")}
          >
            Fuel: is it enough?
          </Button>
        )}
        {type.oil && (
          <Button className="flex-1" textClassName="text-base" testID="add-oil" onPress={() => page("oil")}>
            Add oil
          </Button>
        )}
      </View>
      {fuel?.usableL !== undefined && (
        <Text className="text-sm text-voice">{words.say(fuel.usableL)} usable in total</Text>
      )}
      {shown.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
      {Object.entries(oil ?? {})
        .filter(
          ([, { judgement }]) =>
            judgement.grade === "within limits" && !isReadingOf(typing, READING.oilLevel),
        )
        .map(([engine, { judgement }]) => (
          <JudgementCard key={engine} judgement={judgement} compact />
        ))}
    </View>
  );
}

function TankGlass({
  litres,
  capacity,
  unusable,
}: {
  litres: number | undefined;
  capacity: number;
  unusable: number;
}) {
  const { ink, chock, paper, clay } = usePalette();
  const height = litres === undefined ? 0 : Math.max(1, Math.min(1, litres / capacity) * 44);
  return (
    <Svg width={30} height={50} viewBox="0 0 30 50" aria-hidden>
      <Rect x={2} y={2} width={26} height={46} rx={4} fill={paper} stroke={ink} strokeWidth={2.5} />
      <Rect x={4} y={47 - height} width={22} height={height} fill={chock} />
      <Line
        x1={4}
        x2={26}
        y1={47 - (unusable / capacity) * 44}
        y2={47 - (unusable / capacity) * 44}
        stroke={clay}
        strokeWidth={2}
      />
    </Svg>
  );
}
