import type { Station } from "@cravix/core/aircraft/aircraft-type";
import { useMemo } from "react";
import { View } from "react-native";
import { PlanView } from "../../../ui/aircraft/plan-view";
import { ProgressLine } from "../../../ui/aircraft/progress-line";
import { Button } from "../../../ui/input/button";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { Heading, Text } from "../../../ui/text";
import { useWide } from "../../../ui/use-wide";
import type { Acts, LoadedPreflight } from "../../open-preflight";
import { PaceNote } from "../../pace";
import { beadsFor } from "../beads";
import { PreflightHeader } from "../header";

/** Flow from memory, station by station; the checklist afterwards catches what was missed. */
export function FlowPanel({
  preflight,
  station,
  acts,
}: {
  preflight: LoadedPreflight;
  station: Station;
  acts: Acts;
}) {
  const wide = useWide();
  const { list, state, progress, phase } = preflight;
  const items = list.items.filter((i) => i.station === station.id);
  const left = list.stations.filter((s) => s.phase === "lap" && !state.flowed[s.id]).length;
  const beads = useMemo(
    () =>
      beadsFor(preflight).map((bead) => ({
        ...bead,
        state:
          bead.stationId === station.id
            ? ("here" as const)
            : state.flowed[bead.stationId]
              ? ("done" as const)
              : ("ahead" as const),
        left: state.flowed[bead.stationId] ? 0 : 1,
      })),
    [preflight, station.id, state.flowed],
  );
  const done = () => acts.flowed(station.id);
  const read = () => items[0] && acts.visit(items[0].id);
  useShortcuts({ Enter: done, r: read, u: acts.undo, i: () => acts.interrupt() });
  const { plan } = list.type;
  return (
    <View className="h-full bg-paper" role="main" testID={`flow-${station.id}`}>
      <View className="gap-1 px-[18px] pt-2">
        <PreflightHeader preflight={preflight} />
        <ProgressLine progress={progress} current={phase} onPress={() => read()} />
      </View>
      <View className="px-[18px]">
        <PaceNote preflight={preflight} acts={acts} stationId={station.id} />
      </View>
      <View className={`min-h-0 flex-1 ${wide ? "flex-row" : ""}`}>
        <View className="min-h-[180px] flex-1">
          {plan && <PlanView plan={plan} beads={beads} onPress={acts.visitStation} />}
        </View>
        <View className={`gap-1 px-[18px] pb-3 ${wide ? "w-[45%] justify-end" : ""}`}>
          <Text className="font-mid text-sm text-voice">{`Flow from memory · ${left} stations to go`}</Text>
          <Heading level={1} className="text-2xl">
            {station.name}
          </Heading>
          <Text>{`Do all ${items.length} items here from memory. Afterwards you check them against the checklist.`}</Text>
        </View>
      </View>
      <View className="items-center bg-deck">
        <View className="w-full max-w-3xl gap-2 px-4 py-3">
          <Button
            tone="primary"
            className="min-h-28"
            textClassName="text-2xl"
            hint={wide ? "Enter" : undefined}
            testID="primary"
            onPress={done}
          >
            Flow done
          </Button>
          <View className="flex-row justify-between">
            <Button
              tone="bare-deck"
              textClassName="text-sm"
              hint={wide ? "U" : undefined}
              disabled={!acts.canUndo}
              onPress={acts.undo}
            >
              Undo
            </Button>
            <Button tone="bare-deck" textClassName="text-sm" hint={wide ? "R" : undefined} onPress={read}>
              Use the checklist here
            </Button>
            <Button
              tone="bare-deck"
              textClassName="text-sm"
              hint={wide ? "I" : undefined}
              onPress={() => acts.interrupt()}
            >
              Interrupted
            </Button>
          </View>
        </View>
      </View>
    </View>
  );
}
