import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { requestedFlight } from "@cravix/core/verdict/judges/judge-airworthiness";
import { View } from "react-native";
import { record } from "../../store/preflight/record";
import { localPhotographs, withPhotographs } from "../../store/preflight/unsynced-events";
import { useBundle } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { GoodMark } from "../../ui/good-mark";
import { GradeMark } from "../../ui/grade-mark";
import { Caution } from "../../ui/judgement-card";
import { Heading, Text } from "../../ui/text";
import { useOpenDiscrepancies } from "../aircraft-frame";
import { ByReport, PassengersDoor } from "../departure";
import { DueJudgements } from "../due";
import type { LoadedPreflight } from "../open-preflight";
import { Photographs } from "../photographs";

/** Item id of the passenger briefing. */
const PASSENGERS = "board.brief";

/** Due items, at the item that shows the whole record. */
function airworthinessOf({ list, state }: LoadedPreflight, item: Item) {
  const asked = item.due?.includes("*") ? requestedFlight(list, state) : undefined;
  return list.papers && asked ? { of: list.papers, asked } : undefined;
}

/** Earlier photos of a known discrepancy, and adding one. */
function KnownPhotographs({
  preflight: { list, state },
  discrepancyId,
}: {
  preflight: LoadedPreflight;
  discrepancyId: string;
}) {
  const dispatch = useAppDispatch();
  const open = useOpenDiscrepancies(useBundle(list.registration));
  const here = useAppSelector((root) => root.preflight.events);
  const known = open.find(({ id }) => id === discrepancyId)?.photographs;
  const photographs = withPhotographs(known, localPhotographs(here).get(discrepancyId)) ?? [];
  return (
    <Photographs
      photographs={photographs}
      onAdd={(one) => void dispatch(record(state.id, "discrepancy.photographed", { ...one, discrepancyId }))}
    />
  );
}

/** What to do, what good looks like, what bad looks like. */
export function ItemCard({
  preflight,
  item,
  why,
  tight,
}: {
  preflight: LoadedPreflight;
  item: Item;
  why: boolean;
  tight: boolean;
}) {
  const { list } = preflight;
  const station = list.stations.find((s) => s.id === item.station);
  const own = list.items.filter((i) => i.station === item.station);
  const today = list.differences.find((d) => d.itemId === item.id);
  const answered = preflight.state.answers[item.id];
  const papers = airworthinessOf(preflight, item);
  return (
    <View aria-live="polite" testID={`item-${item.id}`}>
      <View className="flex-row flex-wrap items-center gap-x-2">
        <Text className="font-mid text-sm text-voice">
          {station?.name} · {own.indexOf(item) + 1} of {own.length}
        </Text>
        {today && (
          <Text className="rounded bg-chock px-1.5 font-mid text-xs text-on-chock">today: {today.why}</Text>
        )}
        {answered && (
          <Text className="rounded bg-stone px-1.5 font-mid text-xs">
            answered: {answered.value ?? answered.outcome}
          </Text>
        )}
      </View>
      <Heading level={1} className={tight ? "text-lg" : "text-2xl"}>
        {item.title}
      </Heading>
      <View className="mt-1.5 gap-1">
        {!tight && (
          <View className="flex-row gap-3">
            <GoodMark />
            <Text className="shrink">{item.good}</Text>
          </View>
        )}
        {!tight && item.bad && (
          <View className="flex-row gap-3">
            <GradeMark grade={item.kind === "observe" ? "ask" : item.miss} size={20} />
            <Text className="shrink">{item.bad}</Text>
          </View>
        )}
        {!tight && item.discrepancyId && (
          <KnownPhotographs preflight={preflight} discrepancyId={item.discrepancyId} />
        )}
        <ByReport preflight={preflight} />
        {!tight && papers && <DueJudgements papers={papers.of} asked={papers.asked} />}
        {!tight && item.caution && <Caution>{item.caution}</Caution>}
        {!tight && item.id === PASSENGERS && <PassengersDoor preflight={preflight} />}
        {why && (
          <View className="rounded-lg bg-stone px-3 py-2">
            <Text className="text-sm text-voice">Why</Text>
            <Text>{item.why}</Text>
          </View>
        )}
      </View>
    </View>
  );
}
