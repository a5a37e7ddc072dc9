import { can, rolesThatCan } from "@cravix/contract/client";
import { type OwnItem, phaseIndex } from "@cravix/core/aircraft/aircraft-type";
import { View } from "react-native";
import { useToday } from "../../store/server/today";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Screen } from "../../ui/frame/screen";
import { GoodMark } from "../../ui/good-mark";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { isChanged, type OwnDifference } from "./difference";
import { ItemEditor } from "./item-editor";
import { useOwnItems } from "./use-own-items";

/** Items added to this aircraft: add, change, retire, with the effect on the checklist. */
export function OwnItemsScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>
      {(aircraft) => <OwnItems aircraft={aircraft} />}
    </AircraftFrame>
  );
}

const OwnItems = withFormLibrary(OwnItemsLoaded);

function OwnItemsLoaded({ aircraft }: { aircraft: KnownAircraft }) {
  const { bundle, crew, crewId } = aircraft;
  const own = useOwnItems(aircraft);
  const today = useToday(aircraft.bundle.aircraft.registration);
  const wide = useWide();
  const mayWrite =
    own.ready &&
    can(
      crew.find((member) => member.id === crewId),
      "items.edit",
    );
  const stations = [...bundle.type.stations]
    .filter((station) => station.phase !== "after")
    .sort((a, b) => phaseIndex(a.phase) - phaseIndex(b.phase));
  const place = (id: string) => stations.find((station) => station.id === id)?.name ?? id;
  const changed = isChanged(own.difference);
  const editing = own.items.find(({ id }) => id === own.editing);
  // Wide screens preview an item even when none is edited.
  const previewed = editing ?? (wide ? own.items.find((item) => !item.retired) : undefined);
  return (
    <Screen
      {...(!editing && { back: `/aircraft/${bundle.aircraft.registration}` })}
      actions={
        (mayWrite || editing || own.message !== "") && (
          <>
            {own.message !== "" && (
              <Text role="status" className="font-mid text-deck-ink" testID="own-message">
                {own.message}
              </Text>
            )}
            <View className="flex-row gap-3">
              {editing && (
                <Button
                  tone="deck"
                  className="min-h-16 flex-1"
                  textClassName="text-base"
                  onPress={() => own.edit(undefined)}
                >
                  Back to all items
                </Button>
              )}
              {mayWrite &&
                (changed ? (
                  <Button
                    tone="primary"
                    className="min-h-16 flex-[1.6]"
                    textClassName="text-xl"
                    testID="primary"
                    onPress={own.save}
                  >
                    Save for everyone
                  </Button>
                ) : (
                  <Button
                    tone="primary"
                    className="min-h-16 flex-[1.6]"
                    textClassName="text-xl"
                    testID="primary"
                    onPress={own.add}
                  >
                    Add an item
                  </Button>
                ))}
            </View>
            {mayWrite && changed && !editing && (
              <View className="flex-row justify-between">
                <Button tone="bare-deck" textClassName="text-sm" onPress={own.add}>
                  Add another
                </Button>
                <Button tone="bare-deck" textClassName="text-sm" onPress={own.drop}>
                  Discard changes
                </Button>
              </View>
            )}
          </>
        )
      }
    >
      <PageHead>{`${bundle.aircraft.registration}: added items`}</PageHead>
      {own.ready && !mayWrite && (
        <Text className="mt-1 text-voice">
          {`Only ${rolesThatCan("items.edit")} can edit added items. You can read them.`}
        </Text>
      )}
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-4"}>
        <View className={wide ? "flex-[1.2] gap-3" : "gap-3"}>
          {editing && mayWrite ? (
            <>
              <ItemEditor
                key={editing.id}
                control={own.control}
                row={own.items.indexOf(editing)}
                stations={stations}
              />
              <Button textClassName="text-base" onPress={() => own.retire(editing.id, today)}>
                Retire this item
              </Button>
            </>
          ) : (
            own.items.map((item) => (
              <OwnRow
                key={item.id}
                item={item}
                station={place(item.station)}
                onEdit={
                  mayWrite ? () => (item.retired ? own.bringBack(item.id) : own.edit(item.id)) : undefined
                }
              />
            ))
          )}
          {!editing && own.items.length === 0 && <Text className="text-voice">No added items yet.</Text>}
        </View>
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          {previewed && <Preview item={previewed} station={place(previewed.station)} />}
          <Difference difference={own.difference} place={place} />
        </View>
      </View>
    </Screen>
  );
}

function OwnRow({
  item,
  station,
  onEdit,
}: {
  item: OwnItem;
  station: string;
  onEdit: (() => void) | undefined;
}) {
  return (
    <View
      className={`rounded-xl bg-stone px-3 py-2 ${item.retired ? "opacity-80" : ""}`}
      testID={`own-${item.id}`}
    >
      <Text className="text-sm text-voice">
        {station}
        {item.when ? ` · only when: ${item.when.join(", ")}` : ""}
        {item.retired ? ` · retired ${item.retired}` : ""}
      </Text>
      <Text className={`font-strong ${item.retired ? "line-through" : ""}`}>
        {item.title || "No text yet"}
      </Text>
      <Text className="text-sm">{item.good}</Text>
      {onEdit && (
        <Button tone="bare" className="self-start px-0" textClassName="text-base" onPress={onEdit}>
          {item.retired ? "Restore" : "Change or retire"}
        </Button>
      )}
    </View>
  );
}

/** The item as pilots will see it. */
function Preview({ item, station }: { item: OwnItem; station: string }) {
  return (
    <View className="gap-1 rounded-xl border-2 border-ink p-3" testID="own-preview">
      <Text className="text-sm text-voice">Preview for the next pilot</Text>
      <Text className="font-mid text-sm text-voice">{station}</Text>
      <Heading level={2} className="text-2xl">
        {item.title || "…"}
      </Heading>
      <View className="flex-row gap-3">
        <GoodMark />
        <Text className="shrink">{item.good || "…"}</Text>
      </View>
      {item.bad && (
        <View className="flex-row gap-3">
          <GradeMark grade={item.miss} size={20} />
          <Text className="shrink">{item.bad}</Text>
        </View>
      )}
      <View className="rounded-lg bg-stone px-3 py-2">
        <Text className="text-sm text-voice">Why</Text>
        <Text>{item.why || "…"}</Text>
      </View>
    </View>
  );
}

function Difference({ difference, place }: { difference: OwnDifference; place: (id: string) => string }) {
  const { typeItems, added, changed, retired, broughtBack } = difference;
  const line = (sign: string, item: OwnItem) => (
    <Text key={`${sign}${item.id}`}>{`${sign} ${place(item.station)}: ${item.title || "no text yet"}`}</Text>
  );
  return (
    <View className="gap-1 rounded-xl bg-stone px-3 py-2" testID="own-difference">
      <Text className="font-strong">Changes to save</Text>
      <Text className="text-sm text-voice">{`The ${typeItems} items of this aircraft type stay as they are.`}</Text>
      {!isChanged(difference) && <Text>No changes yet.</Text>}
      {added.map((item) => line("+", item))}
      {changed.map(({ after }) => line("changed:", after))}
      {retired.map((item) => line("retired:", item))}
      {broughtBack.map((item) => line("restored:", item))}
    </View>
  );
}
