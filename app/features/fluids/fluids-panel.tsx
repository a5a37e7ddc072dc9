import { formatNumber, formatQuantity } from "@cravix/core";
import { addMinutes, format } from "date-fns";
import { View } from "react-native";
import Svg, { Line, Rect } from "react-native-svg";
import { JudgementCard } from "../../ui/judgement-card";
import { Text } from "../../ui/text";
import { usePalette } from "../../ui/use-palette";
import type { Walk } from "../walk/use-preflight";

/** What the stick has said so far: litres in each tank, endurance, and the clock time by which to be on the ground. */
export function FluidsPanel({ walk }: { walk: Walk }) {
  const { fuel, oil } = walk.judged;
  const tanks = walk.list.type.fuel?.tanks ?? [];
  if (!fuel && !oil) return null;
  const typing = walk.item?.reading?.key;
  return (
    <View className="gap-2">
      {fuel && (
        <View className="flex-row gap-4">
          {tanks.map((tank) => (
            <View key={tank.id} className="flex-1 flex-row items-end gap-2">
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
                    : formatQuantity({ value: fuel.volumesL[tank.id] ?? 0, unit: "L" })}
                </Text>
              </View>
            </View>
          ))}
          {fuel.onGroundWithinMin !== undefined && (
            <View className="flex-1">
              <Text className="text-sm text-voice">off now: down by</Text>
              <Text className="font-strong text-lg" testID="down-by">
                {format(addMinutes(new Date(), Math.floor(fuel.onGroundWithinMin)), "HH:mm")}
              </Text>
            </View>
          )}
        </View>
      )}
      {fuel?.usableL !== undefined && !typing?.startsWith("fuel.") && (
        <>
          <Text className="text-sm text-voice">{formatNumber(fuel.usableL)} L usable in all tanks</Text>
          {fuel.judgements.map((judgement) => (
            <JudgementCard key={judgement.id} judgement={judgement} />
          ))}
        </>
      )}
      {oil && typing !== "oil.level" && <JudgementCard judgement={oil.judgement} />}
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
  const height = litres === undefined ? 0 : Math.max(1, (litres / capacity) * 44);
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
