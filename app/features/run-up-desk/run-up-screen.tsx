import { shapeOf } from "@cravix/contract/stand-in";
import { blockedBy, formatNumber } from "@cravix/core";
import type { Observation } from "@cravix/core/diagnosis";
import {
  clearSequence,
  coachSequence,
  type Emergency,
  type Mark,
  type Trace,
  type TraceLine,
  type TraceSource,
  traceOf,
} from "@cravix/core/run-up";
import { useKeepAwake } from "expo-keep-awake";
import { router } from "expo-router";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { listenLive, listenPractice } from "../../device/engine-monitor";
import type { RunUpAnswer, RunUpQuestion } from "../../device/run-up.worker";
import { readRunUpHere } from "../../device/run-up-work";
import { useAppDispatch } from "../../store/hooks";
import { record } from "../../store/record";
import { Button } from "../../ui/button";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { useActs } from "../walk/use-acts";
import { useWalk, type Walk } from "../walk/use-preflight";
import { type FoldedWalk, WalkFrame } from "../walk/walk-frame";
import { EmergencyList, EmergencyNow } from "./emergency";
import { engineOfWalk, sideWords, type WalkEngine } from "./engine-of-walk";
import { FileWay } from "./file-way";
import { LiveRunUp } from "./live-run-up";
import { usePlanted } from "./planted";
import { Results } from "./results";
import { type TypedNumbers, TypedWay } from "./typed-way";
import { forTheRecord, typedReadings, useRecordRunUp } from "./use-record";
import { WayIn } from "./way-in";

/** The run-up in one place: from the monitor, from a file, or by typing; read, judged, explained, and written down with one touch. */
export function RunUpScreen({ id, engine }: { id: string; engine?: string }) {
  return <WalkFrame id={id}>{(folded) => <Desk folded={folded} name={engine} />}</WalkFrame>;
}

function Desk({ folded, name }: { folded: FoldedWalk; name: string | undefined }) {
  useKeepAwake();
  const walk = useWalk(folded);
  const engine = useMemo(() => engineOfWalk(walk, name), [walk, name]);
  if (!engine)
    return (
      <Screen actions={<BackToWalk id={walk.state.id} />}>
        <Heading level={1} className="text-3xl">
          No run-up on file
        </Heading>
        <Text>This type has no run-up figures on file. Its items are answered in the walk, one by one.</Text>
      </Screen>
    );
  return <EngineDesk walk={walk} engine={engine} />;
}

type Way = "choose" | "live" | "practice" | "file" | "typed";

interface Read {
  answer: RunUpAnswer;
  trace: Trace;
  source: TraceSource;
  /** Cleared or leaned so often. */
  tries: number;
}

function EngineDesk({ walk, engine }: { walk: Walk; engine: WalkEngine }) {
  const wide = useWide();
  const acts = useActs(walk);
  const dispatch = useAppDispatch();
  const write = useRecordRunUp(walk);
  const planted = usePlanted();
  const [way, setWay] = useState<Way>("choose");
  const [round, setRound] = useState(0);
  const [remedy, setRemedy] = useState<"cleared" | undefined>();
  const [read, setRead] = useState<Read>();
  const [emergency, setEmergency] = useState<{ id: Emergency; side?: "right" | "left" } | "pick">();
  const [trouble, setTrouble] = useState<string>();
  const { profile } = engine;
  const words = sideWords(profile);
  const id = walk.state.id;
  const toWalk = () => router.replace(`/preflight/${id}`);
  const block = blockedBy(walk.list, walk.state, engine.baseItem);

  const ask = async (trace: Trace, source: TraceSource, marks?: Mark[], told: Observation[] = []) => {
    const question: RunUpQuestion = {
      trace,
      profile,
      limits: engine.limits,
      context: engine.context,
      told,
      ...(marks && { marks }),
      ...(remedy && read && { before: { observations: read.answer.observations, remedy } }),
    };
    try {
      const answer = await readRunUpHere(question);
      setRead({ answer, trace, source, tries: (read?.tries ?? 0) + (remedy ? 1 : 0) });
      setTrouble(undefined);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setRemedy(undefined);
    setWay("choose");
  };

  const onEnd = (how: string, lines: TraceLine[], marks: Mark[], side?: "right" | "left") => {
    if (lines.length === 0) {
      setWay("choose");
      return;
    }
    const told: Observation[] =
      how === "no drop" && side
        ? [{ feature: "turned", state: "confirmed", side, words: `Asked: the key was on ${words[side]}.` }]
        : [];
    if (how === "no drop" && side) setEmergency({ id: "no drop", side });
    if (how === "stopped" && side) setEmergency({ id: "stops on one", side });
    void ask(traceOf(lines), "monitor", marks, told);
  };

  const onTyped = (numbers: TypedNumbers) => {
    const { base, back } = numbers;
    for (const { item, value, unit } of typedReadings(walk, engine, numbers))
      if (item.reading)
        dispatch(record(id, "reading.taken", { itemId: item.id, key: item.reading.key, value, unit }));
    const allBack = back.every(
      (rpm) => rpm !== undefined && Math.abs(rpm - base) <= 25 * Math.max(1, profile.rpm / 1800),
    );
    const both = walk.list.items.find(
      (item) => item.traced === "both" && item.station === engine.baseItem.station,
    );
    if (both && allBack) dispatch(record(id, "item.answered", { itemId: both.id, outcome: "sound" }));
    for (const side of ["right", "left"] as const) {
      const rpm = numbers[side];
      if (rpm === undefined) continue;
      if (rpm === 0) return setEmergency({ id: "stops on one", side });
      if (rpm >= base) return setEmergency({ id: "no drop", side });
    }
    const done = new Set([engine.baseItem.id, ...(both && allBack ? [both.id] : [])]);
    const open = walk.list.items.find(
      (item) =>
        item.station === engine.baseItem.station &&
        !done.has(item.id) &&
        !walk.state.answers[item.id] &&
        !typedReadings(walk, engine, numbers).some((reading) => reading.item.id === item.id),
    );
    if (open) acts.visit(open.id);
    toWalk();
  };

  if (emergency === "pick")
    return (
      <EmergencyList
        onPick={(picked) => setEmergency({ id: picked })}
        onBack={() => setEmergency(undefined)}
      />
    );
  if (emergency)
    return (
      <EmergencyNow
        id={emergency.id}
        profile={profile}
        where={emergency.side ? `on ${words[emergency.side]}` : ""}
        onBack={() => setEmergency(undefined)}
        onLog={(text) => {
          if (read) write(forTheRecord(walk, engine, read.answer, read.trace, read.source));
          const sideItem =
            emergency.side &&
            walk.list.items.find(
              (item) =>
                item.reading?.key.startsWith(`magneto.${emergency.side}`) &&
                item.station === engine.baseItem.station,
            );
          acts.found(sideItem ?? engine.baseItem, text, "stop");
          router.replace(`/preflight/${id}/verdict`);
        }}
      />
    );

  const shape = shapeOf(walk.list.type);
  if (shape && (way === "live" || way === "practice")) {
    const { fault, side, cylinder, severity, speed, seed } = planted;
    const celsius = walk.state.celsius ?? 15;
    return (
      <LiveRunUp
        key={round}
        title={
          remedy
            ? `${walk.list.registration}: clear it`
            : `${walk.list.registration}${engine.name ? `, ${engine.name} engine` : ""}`
        }
        profile={profile}
        wide={wide}
        practice={way === "practice"}
        sequence={(warm) =>
          remedy ? clearSequence(profile) : coachSequence(profile, { lean: engine.lean, warm })
        }
        listen={(on) =>
          way === "live"
            ? listenLive(
                {
                  registration: walk.list.registration,
                  fault: fault.kind,
                  side,
                  cylinder: String(cylinder),
                  severity: String(severity),
                  seed: String(seed + round),
                  speed: String(speed),
                  celsius: String(celsius),
                },
                on,
              )
            : listenPractice(
                {
                  shape,
                  runUpRpm: profile.rpm,
                  clearRpm: profile.clear.rpm,
                  air: { pressureHpa: 1013, celsius, humidity: 0.6 },
                  fault,
                  severity,
                  seed: seed + round,
                },
                speed,
                on,
              )
        }
        onEnd={onEnd}
        onEmergency={() => setEmergency("pick")}
      />
    );
  }

  if (read && way === "choose") {
    const [next] = read.answer.report.next;
    const clears =
      next?.id === "clear" &&
      read.source === "monitor" &&
      !read.answer.remedied &&
      read.answer.report.ranked[0]?.fault;
    const used = read.tries >= profile.clear.tries;
    return (
      <Screen
        wideWidth={wide ? "max-w-[1240px]" : "max-w-3xl"}
        actions={
          <View className="gap-2">
            {clears && !used && (
              <Button
                tone="primary"
                className="min-h-16"
                textClassName="text-2xl"
                testID="start-minute"
                onPress={() => {
                  setRemedy("cleared");
                  setRound(round + 1);
                  setWay("live");
                }}
              >
                Start the minute
              </Button>
            )}
            <View className="flex-row gap-2">
              <Button
                tone="deck"
                className="min-h-16 flex-1 px-1"
                textClassName="text-base"
                onPress={() => {
                  setRead(undefined);
                  setRound(round + 1);
                }}
              >
                Again
              </Button>
              <Button
                tone="deck"
                className="min-h-16 flex-1 border-4 px-1"
                textClassName="text-base"
                onPress={() => setEmergency("pick")}
                testID="emergency"
              >
                Stop: trouble
              </Button>
              <Button
                tone={clears && !used ? "deck" : "primary"}
                className="min-h-16 flex-[1.7]"
                textClassName="text-xl"
                testID="use-numbers"
                onPress={() => {
                  write(forTheRecord(walk, engine, read.answer, read.trace, read.source));
                  toWalk();
                }}
              >
                Write it down
              </Button>
            </View>
          </View>
        }
      >
        <Heading level={1} className="mb-2 text-2xl">{`${walk.list.registration}: run-up`}</Heading>
        {used && clears && (
          <View role="alert" className="mb-3 rounded-xl border-4 border-clay px-3 py-2">
            <Text className="font-strong text-lg text-clay">{`Not cleared in ${profile.clear.tries} tries: taxi back.`}</Text>
          </View>
        )}
        <Results
          walk={walk}
          engine={engine}
          answer={read.answer}
          trace={read.trace}
          source={read.source}
          wide={wide}
        />
      </Screen>
    );
  }

  return (
    <Screen
      actions={
        <View className="flex-row gap-2">
          <Button
            tone="deck"
            className="min-h-16 flex-1"
            onPress={way === "choose" ? toWalk : () => setWay("choose")}
          >
            Back
          </Button>
          <Button
            tone="deck"
            className="min-h-16 flex-1 border-4"
            onPress={() => setEmergency("pick")}
            testID="emergency"
          >
            Stop: trouble
          </Button>
        </View>
      }
    >
      <Heading level={1} className="text-3xl">
        {way === "typed"
          ? "Type it in"
          : way === "file"
            ? "From a file"
            : `Run-up${engine.name ? `, ${engine.name} engine` : ""}`}
      </Heading>
      {trouble && (
        <Text role="alert" className="font-mid text-clay">
          {trouble}
        </Text>
      )}
      {block && way === "choose" && (
        <View role="alert" className="my-2 border-l-4 border-clay pl-2">
          <Text className="font-mid">{block.why}</Text>
        </View>
      )}
      {way === "choose" && (
        <WayIn
          engine={engine}
          planted={planted}
          onWay={(picked) => setWay(picked)}
          density={engine.densityAltitudeFt}
        />
      )}
      {way === "typed" && <TypedWay engine={engine} onDone={onTyped} />}
      {way === "file" && (
        <FileWay cylinders={profile.cylinders} onRead={({ trace }) => void ask(trace, "file")} />
      )}
      {way === "choose" && engine.densityAltitudeFt !== undefined && (
        <Text className="mt-3 text-sm text-voice">
          {`Density altitude about ${formatNumber(engine.densityAltitudeFt)} ft on the standard setting${engine.lean ? ": lean before you judge the drops" : ""}.`}
        </Text>
      )}
    </Screen>
  );
}

function BackToWalk({ id }: { id: string }) {
  return (
    <Button
      tone="primary"
      className="min-h-16"
      textClassName="text-xl"
      onPress={() => router.replace(`/preflight/${id}`)}
    >
      Back to the walk
    </Button>
  );
}
