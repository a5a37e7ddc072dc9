import { hastyText, rushedSequences } from "@cravix/core/pace/hasty-runs";
import { comparePace, type StationPace, stationTimes, stationVisits } from "@cravix/core/pace/station-times";
import { actualRoute, routeProblem } from "@cravix/core/route/route-problem";
import { router } from "expo-router";
import { useMemo } from "react";
import { View } from "react-native";
import { useBundle } from "../../store/server/server-state";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type FoldedPreflight,
  type LoadedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";

/** Debrief of a preflight, for the pilot only: pace, interruptions, items caught by the checklist, distance. */
export function DebriefScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Debrief folded={folded} />}</PreflightFrame>;
}

function Debrief({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const wide = useWide();
  const { list, state } = preflight;
  const runs = useMemo(() => rushedSequences(list, state), [list, state]);
  const caught = list.items.filter((item) => state.answers[item.id]?.caught);
  const name = (stationId: string) => list.stations.find((s) => s.id === stationId)?.name ?? stationId;
  return (
    <Screen back={`/preflight/${state.id}/verdict`}>
      <PageHead title={`${list.registration} debrief`}>Preflight debrief</PageHead>
      <Text className="text-voice">Only you can see this.</Text>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-5"}>
        <View className={wide ? "flex-1 gap-5" : "gap-5"}>
          <View className="gap-2">
            <Heading className="text-lg">Answered too quickly: {runs.length}</Heading>
            {runs.length === 0 && (
              <Text className="text-voice">No answer was too quick for a proper look.</Text>
            )}
            {runs.map((run) => (
              <View key={run.items[0]?.id} className="rounded-xl bg-stone px-3 py-2">
                <Text className="font-mid">{hastyText(run)}</Text>
                <Text className="text-sm">
                  {run.stationIds.map(name).join(", ")}: {run.items.map((item) => item.title).join(" · ")}
                </Text>
                {!state.signed && run.items[0] && (
                  <Button
                    tone="bare"
                    className="self-start px-0"
                    textClassName="text-base"
                    onPress={() => {
                      acts.visit(run.items[0]?.id ?? "");
                      router.replace(`/preflight/${state.id}`);
                    }}
                  >
                    Look again
                  </Button>
                )}
              </View>
            ))}
          </View>
          <Interruptions preflight={preflight} />
          {list.preferences?.method === "flow, then check" && (
            <View className="gap-1">
              <Heading className="text-lg">Caught by the checklist: {caught.length}</Heading>
              {caught.length === 0 && <Text className="text-voice">Nothing was missed in the flow.</Text>}
              {caught.map((item) => (
                <Text key={item.id}>{`${name(item.station)}: ${item.title}`}</Text>
              ))}
            </View>
          )}
        </View>
        <View className={wide ? "flex-1 gap-5" : "gap-5"}>
          <HowFar preflight={preflight} />
          <Pace preflight={preflight} name={name} />
        </View>
      </View>
    </Screen>
  );
}

const CAUSE = {
  "spoken to": "Interrupted",
  "screen left": "Away from the screen",
  "long gap": "Long pause",
  "take-off aborted": "Take-off aborted",
};

function Interruptions({ preflight: { list, state } }: { preflight: LoadedPreflight }) {
  return (
    <View className="gap-1">
      <Heading className="text-lg">Interruptions: {state.interruptions.length}</Heading>
      {state.interruptions.length === 0 && <Text className="text-voice">None.</Text>}
      {state.interruptions.map((i) => (
        <Text key={i.at}>
          {CAUSE[i.cause ?? "spoken to"]}
          {i.cause === "take-off aborted"
            ? ""
            : ` at “${list.items.find((item) => item.id === i.itemId)?.title ?? "the start"}”`}
          {i.way && i.cause !== "take-off aborted"
            ? `: ${i.way === "where I was" ? "continued from the same item" : `went back: ${i.way}`}`
            : ""}
        </Text>
      ))}
    </View>
  );
}

function HowFar({ preflight: { list, state } }: { preflight: LoadedPreflight }) {
  const lap = useMemo(() => {
    const stations = list.stations.filter((s) => s.phase === "lap");
    const problem = routeProblem({ ...list.type, stations, items: list.items });
    return problem && actualRoute(problem, stationVisits(list, state));
  }, [list, state]);
  if (!lap || lap.metres === 0) return null;
  return (
    <View className="gap-1">
      <Heading className="text-lg">Walkaround distance: {lap.metres.toFixed(0)} m</Heading>
      <Text className="text-voice">
        {lap.returns === 0
          ? "Each station once, no backtracking."
          : `Backtracking: ${lap.returns} × to a station already done, ${lap.backtrackMetres.toFixed(0)} m extra.`}
      </Text>
    </View>
  );
}

const clock = (seconds: number | undefined) =>
  seconds === undefined
    ? "–"
    : `${Math.floor(Math.round(seconds) / 60)}:${String(Math.round(seconds) % 60).padStart(2, "0")}`;

function Pace({
  preflight: { list, state },
  name,
}: {
  preflight: LoadedPreflight;
  name: (stationId: string) => string;
}) {
  const walks = useBundle(list.registration)?.walks;
  const rows: StationPace[] = useMemo(
    () =>
      comparePace(
        stationTimes(list, state),
        (walks ?? []).filter((preflight) => preflight.preflightId !== state.id),
        state.crewId,
      ),
    [list, state, walks],
  );
  const order = new Map(list.stations.map((station, i) => [station.id, i]));
  return (
    <View className="gap-1">
      <Heading className="text-lg">Time at each station</Heading>
      <View className="flex-row">
        <Text className="min-w-0 flex-1 text-sm text-voice">minutes</Text>
        {["now", "yours", "group"].map((word) => (
          <Text key={word} className="w-16 text-right text-sm text-voice">
            {word}
          </Text>
        ))}
      </View>
      {[...rows]
        .sort((a, b) => (order.get(a.stationId) ?? 0) - (order.get(b.stationId) ?? 0))
        .map((row) => (
          <View key={row.stationId} className="flex-row border-b-2 border-stone pb-0.5">
            <Text className="min-w-0 flex-1 text-sm" numberOfLines={1}>
              {name(row.stationId)}
            </Text>
            <Text className={`w-16 text-right text-sm ${row.quick ? "font-strong" : ""}`}>
              {`${row.quick ? "▾ " : ""}${clock(row.seconds)}`}
            </Text>
            <Text className="w-16 text-right text-sm">{clock(row.ownSeconds)}</Text>
            <Text className="w-16 text-right text-sm">{clock(row.groupSeconds)}</Text>
          </View>
        ))}
      <Text className="text-sm text-voice">
        ▾ less than half of your usual time. “Yours” and “group” are medians of at least three preflights.
      </Text>
    </View>
  );
}
