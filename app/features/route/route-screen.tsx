import { EXACT_UP_TO } from "@cravix/core";
import { useState } from "react";
import { View } from "react-native";
import { changed } from "../../store/changed";
import { useAppDispatch } from "../../store/hooks";
import { preferencesSet } from "../../store/walk/planned-slice";
import { type Bead, PlanView } from "../../ui/aircraft/plan-view";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { PageHead } from "../../ui/page-head";
import { Screen } from "../../ui/screen";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../start/aircraft-frame";
import { type LapOfPilot, useRoute } from "./use-route";

/** The route of the walkaround: how far you walk, how far you need to, and a better order where there is one. */
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
      dispatch(preferencesSet({ crewId, registration, preferences: changed(preferences, { order: ids }) }));
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
                Walk it this way
              </Button>
            )}
            {preferences.order && (
              <Button tone="deck" textClassName="text-base" onPress={() => use(undefined)}>
                The list's own order
              </Button>
            )}
          </>
        )
      }
    >
      <PageHead title={`${registration} route`}>The route of the walkaround</PageHead>
      {!problem ? (
        <Text className="mt-3">
          The plan of this type has no scale, so nothing can be said of how far you walk.
        </Text>
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
            <Text testID="lap-verdict">
              {lap.trouble !== ""
                ? lap.trouble
                : !best
                  ? "Searching the shortest way round that keeps every rule …"
                  : !better
                    ? "Yours is the shortest way round that keeps every rule. Keep it, the same every time."
                    : `${metres(saved)} shorter, and every rule kept.`}
            </Text>
            {!lap.ownKeepsRules && (
              <Text className="font-mid">
                Your order comes to something that has to wait for a later station: it will stop you there.
              </Text>
            )}
            {lap.usual && (
              <View className="rounded-xl bg-stone px-3 py-2">
                <Text className="font-strong">{`Your last ${lap.usual.walks} walks: ${metres(lap.usual.metres)} each`}</Text>
                <Text className="text-sm">
                  {lap.usual.returns < 0.05
                    ? "No way back: each station once."
                    : `${lap.usual.returns.toFixed(1)} times back to a station already left, ${metres(lap.usual.backtrackMetres)} of it for nothing.`}
                </Text>
              </View>
            )}
            {best && (
              <Text className="text-sm text-voice">
                {best.exact
                  ? "Searched through every order: none is shorter. From the door, round what cannot be walked through, and back."
                  : `More than ${EXACT_UP_TO} stations: a good order, not proven the shortest.`}{" "}
                Short is not the point, the same every time is: change it only if you will keep it.
              </Text>
            )}
          </View>
        </View>
      )}
    </Screen>
  );
}

function beadsOf({ problem }: LapOfPilot, order: readonly number[]): Bead[] {
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
