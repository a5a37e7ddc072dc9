import { CONDITIONS, type Condition, formatQuantity } from "@cravix/core";
import { Redirect, router } from "expo-router";
import { useEffect, useState } from "react";
import { View } from "react-native";
import { useAppDispatch, useAppSelector } from "../../store/hooks";
import { refresh } from "../../store/listeners";
import { beginPreflight } from "../../store/preflight-actions";
import { Button } from "../../ui/button";
import { GradeMark } from "../../ui/grade-mark";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { useShortcuts } from "../../ui/use-shortcuts";
import { useWide } from "../../ui/use-wide";
import { useOpenDiscrepancies } from "../discrepancies/use-open-discrepancies";
import { lastReadingText } from "../walk/last-reading";

const STEP_MIN = 15;
const MEMORY = ["hours", "oil.level", "fuel.dip.left", "fuel.dip.right", "magneto.right", "magneto.left"];

/** What is different today, how long the flight is, and what this aircraft remembers. */
export function StartScreen({ registration }: { registration: string }) {
  const dispatch = useAppDispatch();
  const wide = useWide();
  const { ready, crewId } = useAppSelector((state) => state.session);
  const bundle = useAppSelector((state) => state.fleet.bundles[registration]);
  const crew = useAppSelector((state) => state.fleet.fleet?.crew ?? []);
  const server = useAppSelector((state) => state.sync.server);
  const unfinished = useAppSelector((state) =>
    state.preflight.open.find((p) => p.registration === registration && !p.flying),
  );
  const open = useOpenDiscrepancies(bundle);
  const [conditions, setConditions] = useState<Condition[]>([]);
  const [flightMin, setFlightMin] = useState(60);
  const [trouble, setTrouble] = useState("");
  useEffect(() => {
    if (ready) void refresh(dispatch, registration);
  }, [ready, dispatch, registration]);
  const begin = async () => {
    try {
      const id = await dispatch(beginPreflight(registration, conditions, flightMin));
      router.replace(`/preflight/${id}`);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  useShortcuts({ Enter: bundle ? begin : undefined });
  if (ready && !crewId) return <Redirect href="/" />;
  if (unfinished) return <Redirect href={`/preflight/${unfinished.preflightId}`} />;
  if (!bundle)
    return (
      <Screen
        actions={
          <Button tone="primary" onPress={() => router.replace("/")}>
            To the aircraft
          </Button>
        }
      >
        <Heading level={1} className="mt-8 text-2xl">
          {server === "not reached"
            ? `No network, and ${registration} is not kept on this device`
            : server === "reached"
              ? `There is no aircraft ${registration} in the group`
              : `Fetching ${registration} …`}
        </Heading>
      </Screen>
    );
  const has = (condition: Condition) =>
    bundle.type.items.concat(bundle.aircraft.ownItems).filter((item) => item.when?.includes(condition))
      .length;
  // Only what changes something on this aircraft is asked; night, instrument and long range also change reserve and oil.
  const asked = CONDITIONS.filter((c) => has(c) > 0 || c === "long range");
  const remembered = MEMORY.flatMap((key) => {
    const last = bundle.lastReadings.find((r) => r.key === key);
    const item = bundle.type.items.find((i) => i.reading?.key === key);
    return last && item?.reading
      ? [
          {
            key,
            name: item.title.split(":")[0] ?? key,
            text: lastReadingText(last, item.reading.decimals, crew),
          },
        ]
      : [];
  });
  return (
    <Screen
      wideWidth={wide ? "max-w-[1240px]" : "max-w-3xl"}
      actions={
        <>
          {trouble !== "" && (
            <Text role="alert" className="font-mid text-deck-ink">
              {trouble}
            </Text>
          )}
          <View className="flex-row gap-3">
            <Button tone="deck" className="min-h-20 flex-1" onPress={() => router.replace("/")}>
              Back
            </Button>
            <Button
              tone="primary"
              className="min-h-20 flex-[2]"
              textClassName="text-2xl"
              onPress={begin}
              testID="primary"
              hint={wide ? "Enter" : undefined}
            >
              Begin the walk
            </Button>
          </View>
        </>
      }
    >
      <Heading level={1} className="text-3xl">
        {registration}
      </Heading>
      <Text className="text-voice">{bundle.aircraft.story}</Text>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-2 gap-4"}>
        <View className={wide ? "flex-1 gap-2" : "gap-2"}>
          <Heading className="text-lg">What is different today?</Heading>
          <View className="flex-row flex-wrap gap-2">
            {asked.map((condition) => {
              const on = conditions.includes(condition);
              const more = has(condition);
              return (
                <Button
                  key={condition}
                  pressed={on}
                  className={on ? "bg-chock" : ""}
                  textClassName={`text-base ${on ? "text-on-chock" : ""}`}
                  onPress={() =>
                    setConditions(on ? conditions.filter((c) => c !== condition) : [...conditions, condition])
                  }
                >
                  {`${condition}${more > 0 ? ` +${more}` : ""}`}
                </Button>
              );
            })}
          </View>
          <Text className="text-sm text-voice">+ says how many items it adds to this aircraft's list.</Text>
          <Heading className="mt-2 text-lg">How long is the flight?</Heading>
          <View className="flex-row items-center gap-3">
            <Button
              className="w-20"
              label="−15 minutes"
              onPress={() => setFlightMin(Math.max(STEP_MIN, flightMin - STEP_MIN))}
            >
              −15
            </Button>
            <Text className="grow text-center font-strong text-2xl" testID="flight">
              {formatQuantity({ value: flightMin, unit: "min" })}
            </Text>
            <Button
              className="w-20"
              label="+15 minutes"
              onPress={() => setFlightMin(Math.min(720, flightMin + STEP_MIN))}
            >
              +15
            </Button>
          </View>
        </View>
        <View className={wide ? "flex-1 gap-2" : "gap-2"}>
          <Heading className="text-lg">Known, to look at again</Heading>
          {open.length === 0 && <Text className="text-voice">Nothing is written up.</Text>}
          {open.map((d) => (
            <View key={d.id} className="flex-row gap-3 rounded-xl bg-stone px-3 py-2">
              <GradeMark grade={d.grade} />
              <Text className="shrink">
                {d.text}
                {d.measure ? `, ${d.measure}` : ""}: met at{" "}
                {bundle.type.stations.find((s) => s.id === d.stationId)?.name.toLowerCase() ??
                  "the first station"}
              </Text>
            </View>
          ))}
          <Heading className="mt-2 text-lg">Last readings</Heading>
          {remembered.map(({ key, name, text }) => (
            <View key={key} className="flex-row justify-between gap-3 border-b-2 border-stone pb-1">
              <Text className="text-sm">{name}</Text>
              <Text className="shrink text-right font-mid text-sm">{text}</Text>
            </View>
          ))}
        </View>
      </View>
    </Screen>
  );
}
