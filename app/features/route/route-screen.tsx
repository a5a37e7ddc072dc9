import { EXACT_UP_TO } from "@cravix/core/route/best-order";
import { useState } from "react";
import { View } from "react-native";
import { applyPatch } from "../../store/state/apply-patch";
import { useAppDispatch } from "../../store/state/hooks";
import { preferencesSet } from "../../store/state/planned-slice";
import { type Bead, PlanView } from "../../ui/aircraft/plan-view";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { type RouteOfPilot, useRoute } from "./use-route";

/** Walkaround route: distance walked, shortest distance, and a better order if there is one. */
export function RouteScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Route aircraft={aircraft} />}</AircraftFrame>
  );
}

const metres = (value: number) => `${value.toFixed(0)} m`;

function Route({ aircraft }: { aircraft: KnownAircraft }) {
  const { bundle, preferences, crewId } = aircraft;
  const { registration } = bundle.aircraft;
  const dispatch = useAppDispatch();
  const wide = useWide();
  const lap = useRoute(aircraft);
  const [shown, setShown] = useState<"yours" | "shortest">("yours");
  const { problem, best, own } = lap;
  const saved = best ? lap.ownMetres - best.metres : 0;
  const better = saved >= 0.5 || !lap.ownKeepsRules;
  const order = shown === "shortest" && best ? best.order : own;
  const use = (ids: string[] | undefined) => {
    if (crewId)
      dispatch(
        preferencesSet({ crewId, registration, preferences: applyPatch(preferences, { order: ids }) }),
      );
    setShown("yours");
  };
  return (
    <Screen
      back={`/aircraft/${registration}/prepare`}
      actions={
        (preferences.order || (best && better && problem)) && (
          <>
            {best && better && problem && (
              <Button
                tone="primary"
                className="min-h-20"
                textClassName="text-xl"
                testID="primary"
                onPress={() => use(best.order.map((i) => problem.stations[i]?.id ?? ""))}
              >
                Use this route
              </Button>
            )}
            {preferences.order && (
              <Button tone="deck" textClassName="text-base" onPress={() => use(undefined)}>
                Use the checklist order
              </Button>
            )}
          </>
        )
      }
    >
      <PageHead title={`${registration} route`}>Walkaround route</PageHead>
      <Text className="text-sm text-voice">Stations are numbered in the order you walk them.</Text>
      {!problem ? (
        <Text className="mt-3">This type's plan has no scale, so walking distances cannot be shown.</Text>
      ) : (
        <View className={wide ? "mt-2 flex-row gap-8" : "mt-2 gap-3"}>
          <View className={wide ? "h-[480px] flex-[1.4]" : "h-[330px]"}>
            {bundle.type.plan && <PlanView plan={bundle.type.plan} beads={beadsOf(lap, order)} numbered />}
          </View>
          <View className={wide ? "flex-1 gap-3" : "gap-3"}>
            <View className="flex-row gap-2" role="radiogroup" aria-label="Which order is shown">
              {(["yours", "shortest"] as const).map((option) => (
                <Toggle
                  key={option}
                  on={shown === option}
                  disabled={option === "shortest" && !best}
                  className="flex-1"
                  onPress={() => setShown(option)}
                >
                  {option === "yours"
                    ? `Yours, ${metres(lap.ownMetres)}`
                    : best
                      ? `Shortest, ${metres(best.metres)}`
                      : "Searching …"}
                </Toggle>
              ))}
            </View>
            <Text testID="route-verdict">
              {lap.failure !== ""
                ? lap.failure
                : !best
                  ? "Searching for the shortest route that follows all rules …"
                  : !better
                    ? "Your route is the shortest that follows all rules. Use the same route every time."
                    : `${metres(saved)} shorter, and all rules followed.`}
            </Text>
            {!lap.ownKeepsRules && (
              <Text className="font-mid">
                Your order reaches an item that must wait for a later station. You would have to stop there.
              </Text>
            )}
            {lap.usual && (
              <View className="rounded-xl bg-stone px-3 py-2">
                <Text className="font-strong">{`Your last ${lap.usual.walks} walkarounds: ${metres(lap.usual.metres)} on average`}</Text>
                <Text className="text-sm">
                  {lap.usual.returns < 0.05
                    ? "Each station once, no backtracking."
                    : `Went back ${lap.usual.returns.toFixed(1)} times on average to a station already done: ${metres(lap.usual.backtrackMetres)} extra.`}
                </Text>
              </View>
            )}
            {best && (
              <Text className="text-sm text-voice">
                {best.exact
                  ? "All orders compared: none is shorter. The route starts and ends at the door and goes around obstacles."
                  : `More than ${EXACT_UP_TO} stations: a good order, but not proven to be the shortest.`}{" "}
                Doing it the same way every time matters more than distance. Change the route only if you will
                keep to it.
              </Text>
            )}
          </View>
        </View>
      )}
    </Screen>
  );
}

function beadsOf({ problem }: RouteOfPilot, order: readonly number[]): Bead[] {
  return order.flatMap((index, i): Bead[] => {
    const station = problem?.stations[index];
    return station?.x === undefined || station.y === undefined
      ? []
      : [
          {
            stationId: station.id,
            name: station.name,
            x: station.x,
            y: station.y,
            state: "done",
            flagged: false,
            left: 0,
            detail: `number ${i + 1}`,
          },
        ];
  });
}
