import type { Condition } from "@cravix/core/aircraft/aircraft-type";
import { conditionText } from "@cravix/core/aircraft/condition-text";
import { partOf } from "@cravix/core/aircraft/part-of";
import { NO_TURNAROUND, offeredConditions } from "@cravix/core/checklist/list/turnaround-list";
import { isReadingOf, type ReadingKind } from "@cravix/core/readings/reading-keys";
import { capital, formatQuantity } from "@cravix/core/units/format";
import { type Href, Redirect, router } from "expo-router";
import { lazy, Suspense, useEffect, useState } from "react";
import { View } from "react-native";
import { localTurnaroundReason } from "../../store/preflight/local-turnaround";
import { beginPreflight } from "../../store/preflight/start-preflight";
import { unsyncedEvents } from "../../store/preflight/unsynced-events";
import type { Change } from "../../store/state/apply-patch";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { type Planned, planned } from "../../store/state/planned-slice";
import { Screen } from "../../ui/frame/screen";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { Stepper } from "../../ui/input/stepper";
import { Toggle } from "../../ui/input/toggle";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import { lastReadingText } from "../../ui/last-reading-text";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { withMeasure } from "../../ui/with-measure";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { loadPersonParts } from "../person-due";
import { loadPages } from "../preflight-routes";
import { AircraftDue } from "./aircraft-due";

// Loaded on demand with their calculations.
const nothing = { default: () => null };
const DepartureForFlight = lazy(() =>
  // In one chunk with the preflight pages.
  loadPages().then(
    ({ DepartureToday: part }) => ({ default: part }),
    () => nothing,
  ),
);
const PilotDue = lazy(() =>
  loadPersonParts().then(
    ({ PilotToday: part }) => ({ default: part }),
    () => nothing,
  ),
);

const STEP_MIN = 15;
const STEP_CELSIUS = 5;
/** Readings shown before the preflight, for every tank and engine. */
const MEMORY: readonly ReadingKind[] = [
  "hours",
  "oil.level",
  "fuel.dip",
  "fuel.sight",
  "magneto.right",
  "magneto.left",
];

/** Prepares a preflight: today's conditions, flight length, last readings. */
export function StartScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Start aircraft={aircraft} />}</AircraftFrame>
  );
}

function Start({ aircraft }: { aircraft: KnownAircraft }) {
  const { bundle, crew, plan, preferences, open, crewId } = aircraft;
  const { registration } = bundle.aircraft;
  const dispatch = useAppDispatch();
  const wide = useWide();
  const unfinished = useAppSelector((state) =>
    state.preflight.open.find((p) => p.registration === registration && !p.flying),
  );
  const [problem, setProblem] = useState("");
  const noTurnaround = useNoTurnaround(aircraft);
  const change = (part: Change<Planned>) => dispatch(planned({ registration, ...part }));
  const begin = async () => {
    try {
      const id = await dispatch(beginPreflight(registration));
      router.replace(`/preflight/${id}` as Href);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  useShortcuts({ Enter: begin });
  if (unfinished) return <Redirect href={`/preflight/${unfinished.preflightId}` as Href} />;
  const again = bundle.type.items.filter((item) => item.turnaround === "always").length;
  const { conditions, flightMin, celsius, secondCrewId } = plan;
  const has = (condition: Condition) =>
    bundle.type.items.concat(bundle.aircraft.ownItems).filter((item) => item.when?.includes(condition))
      .length;
  const offered = offeredConditions(bundle.type).filter(
    (c) => c !== "turnaround" || noTurnaround === undefined,
  );
  // A condition chosen earlier and no longer offered can still be removed.
  const asked = [...offered, ...conditions.filter((c) => !offered.includes(c))];
  const toggle = (condition: Condition) =>
    change({
      conditions: conditions.includes(condition)
        ? conditions.filter((c) => c !== condition)
        : [...conditions.filter((c) => !excludes(c, condition)), condition],
    });
  const notOffered = bundle.type.notOffered ?? [];
  return (
    <Screen
      back={`/aircraft/${registration}`}
      actions={
        <>
          {problem !== "" && (
            <Text role="alert" className="font-mid text-deck-ink">
              {problem}
            </Text>
          )}
          <Button
            tone="primary"
            className="min-h-20"
            textClassName="text-2xl"
            onPress={begin}
            testID="primary"
            hint={wide ? "Enter" : undefined}
          >
            Start preflight
          </Button>
        </>
      }
    >
      <PageHead title={`Prepare ${registration}`}>{registration}</PageHead>
      <Text className="text-voice">{bundle.aircraft.story}</Text>
      {/* Together, so that no later part moves the buttons below. */}
      <Suspense fallback={<Text className="text-voice">Fetching …</Text>}>
        <View className={wide ? "mt-3 flex-row gap-8" : "mt-2 gap-4"}>
          <View className={wide ? "flex-1 gap-2" : "gap-2"}>
            <Heading className="text-lg">What is different today?</Heading>
            <View className="flex-row flex-wrap gap-2">
              {asked.map((condition) => {
                const on = conditions.includes(condition);
                const more = condition === "turnaround" ? 0 : has(condition);
                return (
                  <Toggle key={condition} on={on} onPress={() => toggle(condition)}>
                    {`${capital(conditionText(condition))}${more > 0 ? ` +${more}` : ""}`}
                  </Toggle>
                );
              })}
            </View>
            <Text className="text-sm text-voice">+ shows how many items this adds to the checklist.</Text>
            {conditions.includes("turnaround") ? (
              <Text className="text-sm text-voice" testID="turnaround">
                {`Turnaround: ${again} items, covering what may have changed and all critical checks. If the engine was opened or you refuelled again, use the full checklist.`}
              </Text>
            ) : (
              noTurnaround && (
                <Text
                  className="text-sm text-voice"
                  testID="no-turnaround"
                >{`Turnaround not available: ${noTurnaround}`}</Text>
              )
            )}
            {notOffered.map(({ condition, why }) => (
              <Text
                key={condition}
                className="text-sm text-voice"
              >{`“${capital(conditionText(condition))}” not available: ${why}`}</Text>
            ))}
            <Heading className="mt-2 text-lg">How long is the flight?</Heading>
            <Stepper
              text={formatQuantity({ value: flightMin, unit: "min" })}
              step={STEP_MIN}
              unit="minutes"
              testID="flight"
              onStep={(by) => change({ flightMin: Math.min(720, Math.max(STEP_MIN, flightMin + by)) })}
            />
            <AircraftDue aircraft={aircraft} change={change} />
            <DepartureForFlight aircraft={aircraft} />
            <PilotDue aircraft={aircraft} />
            {bundle.type.electrical && (
              <>
                <Heading className="mt-2 text-lg">How cold is it outside?</Heading>
                <Stepper
                  text={
                    celsius === undefined ? "not entered" : formatQuantity({ value: celsius, unit: "°C" })
                  }
                  step={STEP_CELSIUS}
                  unit="degrees"
                  testID="celsius"
                  onStep={(by) =>
                    change({
                      celsius: celsius === undefined ? 15 : Math.min(50, Math.max(-40, celsius + by)),
                    })
                  }
                />
                <Text className="text-sm text-voice">
                  In the cold the battery holds less and the start takes more.
                </Text>
              </>
            )}
          </View>
          <View className={wide ? "flex-1 gap-2" : "gap-2"}>
            <Known aircraft={aircraft} open={open} />
            <Heading className="mt-2 text-lg">Your preferences</Heading>
            <View className="flex-row flex-wrap gap-2">
              <Button
                className={wide ? "px-5" : "min-w-[45%] flex-1"}
                textClassName="text-base"
                onPress={() => router.push(`/aircraft/${registration}/preferences` as Href)}
              >
                {preferences.method === "read-and-do" ? "Read-and-do" : "Flow, then check"}
              </Button>
              <Button
                className={wide ? "px-5" : "min-w-[45%] flex-1"}
                textClassName="text-base"
                onPress={() => router.push(`/aircraft/${registration}/route` as Href)}
              >
                Walkaround route
              </Button>
              <Button
                className={wide ? "px-5" : "min-w-[45%] flex-1"}
                textClassName="text-base"
                onPress={() => router.push(`/aircraft/${registration}/list` as Href)}
              >
                Today's checklist
              </Button>
            </View>
            <Heading className="mt-2 text-lg">Second person</Heading>
            <View className="flex-row flex-wrap gap-2">
              {crew
                .filter((member) => member.id !== crewId)
                .map((member) => {
                  const on = secondCrewId === member.id;
                  return (
                    <Toggle
                      key={member.id}
                      on={on}
                      label={`With ${member.name}`}
                      onPress={() => change({ secondCrewId: on ? undefined : member.id })}
                    >
                      {member.name.split(" ")[0] ?? member.name}
                    </Toggle>
                  );
                })}
            </View>
            <Text className="text-sm text-voice">
              One reads, the other looks and answers. Holding a surface for a check needs the second person.
            </Text>
            <Remembered aircraft={aircraft} />
          </View>
        </View>
      </Suspense>
    </Screen>
  );
}

/** True if two conditions exclude each other, like turnaround and some others: the latest choice counts. */
function excludes(one: Condition, other: Condition): boolean {
  return (
    (one === "turnaround" && NO_TURNAROUND.includes(other)) ||
    (other === "turnaround" && NO_TURNAROUND.includes(one))
  );
}

/** Why a turnaround is not possible; undefined while unknown, when it is not offered. */
function useNoTurnaround({ bundle, crewId }: KnownAircraft): string | undefined {
  const [why, setWhy] = useState<string | undefined>("");
  useEffect(() => {
    let left = false;
    unsyncedEvents(bundle).then(
      (events) => {
        if (!left) setWhy(localTurnaroundReason(bundle, events, crewId, Date.now()));
      },
      () => undefined,
    );
    return () => {
      left = true;
    };
  }, [bundle, crewId]);
  return why;
}

function Known({ aircraft: { bundle }, open }: { aircraft: KnownAircraft; open: KnownAircraft["open"] }) {
  return (
    <>
      <Heading className="text-lg">Known discrepancies to check again</Heading>
      {open.length === 0 && <Text className="text-voice">No discrepancies logged.</Text>}
      {open.map((d) => (
        <View key={d.id} className="flex-row gap-3 rounded-xl bg-stone px-3 py-2">
          <View className="shrink-0">
            <GradeMark grade={d.grade} />
          </View>
          <Text className="shrink">
            {withMeasure(d.text, d.measure).replace(/\.$/, "")}: check at{" "}
            {bundle.type.stations.find((s) => s.id === d.stationId)?.name.toLowerCase() ??
              "the first station"}
          </Text>
        </View>
      ))}
    </>
  );
}

function Remembered({ aircraft: { bundle, crew } }: { aircraft: KnownAircraft }) {
  const remembered = MEMORY.flatMap((kind) =>
    bundle.type.items.flatMap((item) => {
      const { reading } = item;
      const last = bundle.lastReadings.find((r) => r.key === reading?.key);
      if (!last || !reading || !isReadingOf(reading.key, kind)) return [];
      return [
        {
          key: reading.key,
          name: partOf(item),
          text: lastReadingText(last, reading.decimals, crew),
        },
      ];
    }),
  );
  if (remembered.length === 0) return null;
  return (
    <>
      <Heading className="mt-2 text-lg">Last readings</Heading>
      {remembered.map(({ key, name, text }) => (
        <View key={key} className="flex-row justify-between gap-3 border-b-2 border-stone pb-1">
          <Text className="text-sm">{name}</Text>
          <Text className="shrink text-right font-mid text-sm">{text}</Text>
        </View>
      ))}
    </>
  );
}
