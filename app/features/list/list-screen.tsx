import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { ComposeError } from "@cravix/core/checklist/list/compose-error";
import { type ComposedList, composeList } from "@cravix/core/checklist/list/compose-list";
import { memo, useMemo } from "react";
import { FlatList, ScrollView, View } from "react-native";
import { composeInput } from "../../store/preflight/start-preflight";
import { BackButton, Screen } from "../../ui/frame/screen";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { ExportButtons } from "./export-buttons";

/** Today's checklist before the preflight: differences with reasons, all items, export. */
export function ListScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Preview aircraft={aircraft} />}</AircraftFrame>
  );
}

/** Checklist as it would be composed now, without items asked by value, which are chosen at the start. */
function usePreview({ bundle, open, plan, preferences }: KnownAircraft): ComposedList | ComposeError {
  return useMemo(() => {
    try {
      return composeList({ ...composeInput(bundle, open), conditions: plan.conditions, preferences });
    } catch (error) {
      if (error instanceof ComposeError) return error;
      throw error;
    }
  }, [bundle, open, plan.conditions, preferences]);
}

type Line = { kind: "station"; id: string; name: string } | { kind: "item"; item: Item; today: string };

function Preview({ aircraft }: { aircraft: KnownAircraft }) {
  const wide = useWide();
  const list = usePreview(aircraft);
  const { registration } = aircraft.bundle.aircraft;
  const parent = `/aircraft/${registration}/prepare`;
  const lines = useMemo(() => (list instanceof ComposeError ? [] : linesOf(list)), [list]);
  if (list instanceof ComposeError)
    return (
      <Screen back={parent}>
        <PageHead className="mt-8 text-2xl" title="Today's checklist">
          {list.message}
        </PageHead>
      </Screen>
    );
  const head = <Differences list={list} aircraft={aircraft} />;
  return (
    <View role="main" className="h-full bg-paper">
      <View className={`min-h-0 flex-1 ${wide ? "flex-row" : ""}`}>
        {wide && (
          <View className="w-[40%] border-r-2 border-stone">
            <View className="flex-row px-3 pt-3">
              <BackButton tone="bare" to={parent} />
            </View>
            <ScrollView className="flex-1 px-6" tabIndex={0}>
              {head}
              <View className="mt-3 gap-2 rounded-2xl bg-deck p-3">
                <ExportButtons list={list} bundle={aircraft.bundle} />
              </View>
            </ScrollView>
          </View>
        )}
        <FlatList
          data={lines}
          keyExtractor={(line) => (line.kind === "station" ? `s:${line.id}` : line.item.id)}
          renderItem={({ item: line }) => <Row line={line} />}
          ListHeaderComponent={wide ? null : head}
          contentContainerStyle={{ paddingHorizontal: 18, paddingVertical: 12 }}
          initialNumToRender={20}
          tabIndex={0}
          aria-label="All items of today's checklist"
        />
      </View>
      {!wide && (
        <View className="gap-2 bg-deck px-4 py-3">
          <ExportButtons list={list} bundle={aircraft.bundle} />
          <BackButton tone="deck" to={parent} />
        </View>
      )}
    </View>
  );
}

function Differences({ list, aircraft }: { list: ComposedList; aircraft: KnownAircraft }) {
  const byWhy = new Map<string, Item[]>();
  for (const { itemId, why } of list.differences) {
    const item = list.items.find((i) => i.id === itemId);
    if (item) byWhy.set(why, [...(byWhy.get(why) ?? []), item]);
  }
  return (
    <View className="gap-2 pb-3">
      <PageHead title={`${list.registration} checklist`}>Today's checklist</PageHead>
      <Text className="text-voice">
        {list.registration}: {list.items.length} items at {list.stations.length} stations.{" "}
        {list.variant && `${list.variant.name}: ${list.variant.what}.`}
      </Text>
      <Heading className="mt-1 text-lg">Different today</Heading>
      {byWhy.size === 0 && <Text className="text-voice">Nothing: the standard checklist.</Text>}
      {[...byWhy].map(([why, items]) => (
        <View key={why} className="rounded-xl bg-stone px-3 py-2">
          <Text className="font-strong">{`${why}: ${items.length}`}</Text>
          <Text className="text-sm">
            {items
              .slice(0, 4)
              .map((item) => item.title)
              .join(" · ")}
            {items.length > 4 ? ` · and ${items.length - 4} more` : ""}
          </Text>
        </View>
      ))}
      <Text className="text-sm text-voice">
        {aircraft.preferences.surfaces === "moved"
          ? "Surfaces moved by hand"
          : "Surfaces checked by eye only"}
        , {aircraft.preferences.brake}. Some items ask for a value instead of a tick; which ones is chosen
        during the preflight.
      </Text>
    </View>
  );
}

function linesOf(list: ComposedList): Line[] {
  const today = new Map(list.differences.map(({ itemId, why }) => [itemId, why]));
  let station = "";
  return list.items.flatMap((item): Line[] => {
    const line: Line = { kind: "item", item, today: today.get(item.id) ?? "" };
    if (item.station === station) return [line];
    station = item.station;
    const name = list.stations.find((s) => s.id === station)?.name ?? "";
    return [{ kind: "station", id: station, name }, line];
  });
}

const Row = memo(function Row({ line }: { line: Line }) {
  if (line.kind === "station")
    return (
      <Heading className="mt-3 text-base text-voice" level={3}>
        {line.name}
      </Heading>
    );
  return (
    <View className="border-b-2 border-stone py-1.5">
      <View className="flex-row flex-wrap items-center gap-x-2">
        <Text className="font-mid">{line.item.title}</Text>
        {line.today !== "" && (
          <Text className="rounded bg-chock px-1.5 font-mid text-xs text-on-chock">{line.today}</Text>
        )}
      </View>
      <Text className="text-sm text-voice">{line.item.good}</Text>
    </View>
  );
});
