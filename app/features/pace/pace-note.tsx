import { hastyText, rushedSequences } from "@cravix/core/pace/hasty-runs";
import { useMemo } from "react";
import { View } from "react-native";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";

/** Friendly note, shown once on leaving a station answered too quickly. */
export function PaceNote({
  preflight,
  acts,
  stationId,
}: {
  preflight: LoadedPreflight;
  acts: Acts;
  stationId: string;
}) {
  const { list, state } = preflight;
  const run = useMemo(() => rushedSequences(list, state).at(-1), [list, state]);
  const end = run?.items.at(-1);
  if (!run || !end || end.station === stationId) return null;
  const doneBy = state.flowed[end.station] ?? state.answers[end.id];
  if (doneBy?.eventId !== state.undoable.at(-1)?.eventId) return null;
  const first = run.items.find((i) => i.station === end.station) ?? end;
  const station = list.stations.find((s) => s.id === end.station)?.name;
  return (
    <View
      testID="pace"
      role="status"
      className="flex-row items-center gap-2 rounded-lg border-2 border-ink px-3"
    >
      <Text className="min-w-0 flex-1 py-1 text-sm">{`${station}: ${hastyText(run)}`}</Text>
      <Button tone="bare" className="px-1" textClassName="text-sm" onPress={() => acts.visit(first.id)}>
        Look again
      </Button>
    </View>
  );
}
