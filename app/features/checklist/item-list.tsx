import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { itemsOf } from "@cravix/core/checklist/list/list-places";
import { memo, useEffect, useRef } from "react";
import { Pressable, ScrollView, View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";

/** Items shown around the current one; rendering two thousand would slow every answer. */
const BEFORE = 60;
const AHEAD = 140;

/** Items of this phase on wide screens: done, current, ahead. */
export const ItemList = memo(function ItemList({
  preflight,
  acts,
}: {
  preflight: LoadedPreflight;
  acts: Acts;
}) {
  const { list, state, item, phase } = preflight;
  const here = useRef<View>(null);
  const itemId = item?.id;
  useEffect(() => {
    if (itemId) (here.current as unknown as HTMLElement | null)?.scrollIntoView?.({ block: "center" });
  }, [itemId]);
  if (!phase) return null;
  const all = itemsOf(list, phase);
  const at = Math.max(
    0,
    all.findIndex((i) => i.id === itemId),
  );
  const from = Math.max(0, at - BEFORE);
  const items = all.slice(from, at + AHEAD);
  const after = all.length - from - items.length;
  const shown = new Set(items.map((i) => i.station));
  return (
    <ScrollView className="flex-1" tabIndex={0} aria-label="All items of this step">
      {from > 0 && <Text className="px-2 text-sm text-voice">{`${from} earlier items`}</Text>}
      {list.stations
        .filter((station) => shown.has(station.id))
        .map((station) => (
          <View key={station.id} className="mb-2">
            <Text className="px-2 font-mid text-sm text-voice">{station.name}</Text>
            {items
              .filter((i) => i.station === station.id)
              .map((i) => (
                <View key={i.id} ref={i.id === itemId ? here : undefined}>
                  <Row
                    item={i}
                    answer={state.answers[i.id]}
                    here={i.id === itemId}
                    onPress={() => acts.visit(i.id)}
                  />
                </View>
              ))}
          </View>
        ))}
      {after > 0 && <Text className="px-2 text-sm text-voice">{`${after} more items`}</Text>}
    </ScrollView>
  );
});

export function Row({
  item,
  answer,
  here,
  onPress,
}: {
  item: Item;
  answer: LoadedPreflight["state"]["answers"][string] | undefined;
  here: boolean;
  onPress: () => void;
}) {
  const bad = answer && ["found", "grown"].includes(answer.outcome);
  return (
    <Pressable
      role="button"
      aria-current={here ? "true" : undefined}
      onPress={onPress}
      className={`min-h-11 flex-row items-center gap-3 rounded-lg px-2 py-1 ${here ? "bg-chock" : ""}`}
    >
      {answer ? (
        <GradeMark grade={bad ? item.miss : "within limits"} size={18} />
      ) : (
        <View
          className={`h-[14px] w-[14px] rounded-full border-2 ${here ? "border-on-chock" : "border-ink"} mx-0.5`}
        />
      )}
      <Text className={`shrink grow text-sm ${here ? "font-mid text-on-chock" : ""}`}>{item.title}</Text>
      {answer && (
        <Text className={`font-mid text-sm ${here ? "text-on-chock" : "text-voice"}`}>
          {answer.value ?? (answer.outcome === "checked" ? "" : answer.outcome)}
        </Text>
      )}
    </Pressable>
  );
}
