import { blockedBy, formatNumber } from "@cravix/core";
import { type Observation, type OpenQuestion, openQuestions } from "@cravix/core/diagnosis";
import {
  clearSequence,
  coachSequence,
  type Emergency,
  type Mark,
  type Procedure,
  type Trace,
  type TraceLine,
  type TraceSource,
  traceOf,
} from "@cravix/core/run-up";
import { useKeepAwake } from "expo-keep-awake";
import { router } from "expo-router";
import { useMemo, useState } from "react";
import { View } from "react-native";
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
import { AskBack } from "./ask-back";
import { EmergencyList, EmergencyNow } from "./emergency";
import { engineOfWalk, sideWords, type WalkEngine } from "./engine-of-walk";
import { FileWay } from "./file-way";
import { LiveRunUp } from "./live-run-up";
import { monitorOf } from "./monitor-of";
import { usePlanted } from "./planted";
import { ProcedureDesk } from "./procedure-desk";
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
  /** Cleared so often. */
  tries: number;
  marks?: Mark[];
  /** What the pilot answered, and which questions that were. */
  told: Observation[];
  asked: ReadonlySet<OpenQuestion["id"]>;
  onlySide?: "right" | "left";
  /** What was seen before a remedy, where this is the check after it. */
  before?: NonNullable<RunUpQuestion["before"]>;
}

/** What a hot minute may mend. */
const PLUGS: ReadonlySet<string> = new Set(["fouled plug", "dead plug"]);

/** What a run-up was read with, before its answer. */
type Asked = Omit<Read, "answer" | "tries">;

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
  const [procedure, setProcedure] = useState<Procedure>();
  const { profile } = engine;
  const words = sideWords(profile);
  const id = walk.state.id;
  const toWalk = () => router.replace(`/preflight/${id}`);
  const block = blockedBy(walk.list, walk.state, engine.baseItem);

  const ask = async (asked: Asked, tries: number) => {
    const { trace, marks, told, onlySide, before } = asked;
    const question: RunUpQuestion = {
      trace,
      profile,
      limits: engine.limits,
      context: engine.context,
      told,
      ...(marks && { marks }),
      ...(onlySide && { onlySide }),
      ...(before && { before }),
    };
    try {
      const answer = await readRunUpHere(question);
      setRead({ ...asked, answer, tries });
      setTrouble(undefined);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setRemedy(undefined);
    setProcedure(undefined);
    setWay("choose");
  };
  const askNew = (trace: Trace, source: TraceSource, marks?: Mark[], told: Observation[] = []) =>
    ask(
      {
        trace,
        source,
        told,
        asked: new Set(),
        ...(marks && { marks }),
        ...(remedy && read && { before: { observations: read.answer.observations, remedy } }),
      },
      (read?.tries ?? 0) + (remedy || procedure === "clear" ? 1 : 0),
    );
  /** The same trace once more, with what the pilot has added. */
  const tell = (before: Read, told: Observation[], change: Partial<Pick<Asked, "asked" | "onlySide">> = {}) =>
    void ask({ ...before, ...change, told: [...before.told, ...told] }, before.tries);

  const onEnd = (how: string, lines: TraceLine[], marks: Mark[], side?: "right" | "left") => {
    if (lines.length === 0) {
      setProcedure(undefined);
      setWay("choose");
      return;
    }
    const told: Observation[] =
      how === "no drop" && side
        ? [{ feature: "turned", state: "confirmed", side, words: `Asked: the key was on ${words[side]}.` }]
        : [];
    if (how === "no drop" && side) setEmergency({ id: "no drop", side });
    if (how === "stopped" && side) setEmergency({ id: "stops on one", side });
    void askNew(traceOf(lines), "monitor", marks, told);
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

  if (procedure && procedure !== "clear")
    return (
      <ProcedureDesk
        walk={walk}
        engine={engine}
        procedure={procedure}
        planted={planted}
        wide={wide}
        onBack={() => setProcedure(undefined)}
        onEmergency={() => setEmergency("pick")}
      />
    );

  const listen =
    way === "live" || way === "practice"
      ? monitorOf(walk, engine, planted, { practice: way === "practice", round, cold: planted.cold })
      : undefined;
  if (listen) {
    const clearing = remedy || procedure === "clear";
    return (
      <LiveRunUp
        key={round}
        title={
          clearing
            ? `${walk.list.registration}: clear it`
            : `${walk.list.registration}${engine.name ? `, ${engine.name} engine` : ""}`
        }
        profile={profile}
        wide={wide}
        practice={way === "practice"}
        sequence={(warm) =>
          clearing ? clearSequence(profile) : coachSequence(profile, { lean: engine.lean, warm })
        }
        listen={listen}
        onEnd={onEnd}
        onEmergency={() => setEmergency("pick")}
      />
    );
  }

  if (read && way === "choose") {
    const [next] = read.answer.report.next;
    const best = read.answer.report.ranked[0]?.fault;
    // A plug that did not come clean is tried once more, and no more than the type says.
    const tried = read.tries > 0 && !read.answer.remedied && best !== undefined && PLUGS.has(best);
    const clears =
      read.source === "monitor" && !read.answer.remedied && ((next?.id === "clear" && best) || tried);
    const used = read.tries >= profile.clear.tries;
    const [question] = openQuestions(read.answer.reading, profile, read.asked);
    return (
      <Screen
        key="read"
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
                {tried ? "Once more: the minute" : "Start the minute"}
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
        <Heading
          level={1}
          className="mb-2 text-2xl"
        >{`${walk.list.registration}: run-up${engine.name ? `, ${engine.name} engine` : ""}`}</Heading>
        {used && clears && (
          <View role="alert" className="mb-3 rounded-xl border-4 border-clay px-3 py-2">
            <Text className="font-strong text-lg text-clay">{`Not cleared in ${profile.clear.tries} tries: taxi back.`}</Text>
          </View>
        )}
        {question && (
          <AskBack
            question={question}
            onAnswer={({ told, onlySide }) =>
              tell(read, told, {
                asked: new Set([...read.asked, question.id]),
                ...(onlySide && { onlySide }),
              })
            }
          />
        )}
        <Results
          walk={walk}
          engine={engine}
          answer={read.answer}
          trace={read.trace}
          source={read.source}
          wide={wide}
          onTried={(observation) => tell(read, [observation])}
        />
      </Screen>
    );
  }

  return (
    <Screen
      // Each page begins at its top.
      key={way}
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
          onProcedure={(picked) => {
            setProcedure(picked);
            setRound(round + 1);
            if (picked === "clear") setWay("live");
          }}
        />
      )}
      {way === "typed" && <TypedWay engine={engine} onDone={onTyped} />}
      {way === "file" && (
        <FileWay cylinders={profile.cylinders} onRead={({ trace }) => void askNew(trace, "file")} />
      )}
      {way === "choose" && engine.densityAltitudeFt !== undefined && (
        <Text className="mt-3 text-sm text-voice">
          {`Density altitude about ${formatNumber(engine.densityAltitudeFt)} ft ${engine.settingHpa === undefined ? "on the standard setting" : `on ${formatNumber(engine.settingHpa)} hPa`}${engine.lean ? ": lean before you judge the drops" : ""}.`}
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
