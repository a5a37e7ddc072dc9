import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { itemsOf } from "@cravix/core/checklist/list/list-places";
import { entryText } from "@cravix/core/ledger/fold-ledger";
import { useEffect, useMemo, useRef } from "react";
import { ScrollView, View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { Heading, Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";
import { Row } from "./item-list";

/** Items shown around the current one. */
const ROUND = 30;

/**
 * Context of an item without a place on the plan: open discrepancies beside the documents, things to put back beside the cockpit,
 * and other items of the station.
 */
export function StationPanel({
  preflight,
  acts,
  item,
}: {
  preflight: LoadedPreflight;
  acts: Acts;
  item: Item;
}) {
  const { list, state, phase, ledger } = preflight;
  const here = useRef<View>(null);
  const itemId = item.id;
  // Scroll the current item to the centre.
  useEffect(() => {
    if (itemId) (here.current as unknown as HTMLElement | null)?.scrollIntoView?.({ block: "center" });
  }, [itemId]);
  const known = useMemo(
    () => (phase === "papers" ? list.items.filter((one) => one.kind === "observe") : []),
    [list, phase],
  );
  const out = phase === "papers" ? [] : ledger.filter((entry) => entry.state === "out");
  const own = phase ? itemsOf(list, phase).filter((one) => one.station === item.station) : [];
  const at = own.findIndex((one) => one.id === item.id);
  const shown = own.slice(Math.max(0, at - ROUND), at + ROUND);
  const station = (id: string) => list.stations.find((one) => one.id === id)?.name;
  return (
    <ScrollView
      className="flex-1"
      contentContainerClassName="px-[18px] pb-2"
      tabIndex={0}
      testID="station-panel"
    >
      {known.length > 0 && (
        <View className="mb-2 gap-1">
          <Heading className="text-base">{`Open discrepancies on ${list.registration}`}</Heading>
          {known.map((one) => (
            <View key={one.id} className="flex-row gap-2 rounded-lg bg-stone px-2 py-1.5">
              <GradeMark grade={one.miss} size={20} />
              <Text className="shrink text-sm">
                {`${one.title} (${station(one.station) ?? one.station})`}
              </Text>
            </View>
          ))}
        </View>
      )}
      {out.length > 0 && (
        <View className="mb-2 gap-0.5">
          <Heading className="text-base">To put back</Heading>
          {out.map((entry) => (
            <Text key={entry.thing} className="text-sm">
              {entryText(list, entry)}
            </Text>
          ))}
        </View>
      )}
      {shown.map((one) =>
        one.id === item.id ? (
          <View key={one.id} ref={here} className="my-1 flex-row items-center gap-2 px-2">
            <View className="h-[18px] w-[18px] rounded-full border-[3px] border-ink bg-chock" />
            <View className="h-1 flex-1 rounded bg-chock" />
          </View>
        ) : (
          <Row
            key={one.id}
            item={one}
            answer={state.answers[one.id]}
            here={false}
            onPress={() => acts.visit(one.id)}
          />
        ),
      )}
    </ScrollView>
  );
}
