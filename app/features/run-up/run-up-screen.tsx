import type { Observation } from "@cravix/core/diagnosis";
import { magnetoCause } from "@cravix/core/engine/judge-magnetos";
import { blockedBy } from "@cravix/core/ledger/blocked-by";
import { readingKey } from "@cravix/core/readings/reading-keys";
import {
  clearSequence,
  coachSequence,
  type Emergency,
  type Mark,
  type Procedure,
  type Trace,
} from "@cravix/core/run-up";
import { manualValuesFromTrace, type RunUpEngine, runUpEngine, sideNames } from "@cravix/core/run-up-entry";
import { formatNumber } from "@cravix/core/units/format";
import { causeOnEngine } from "@cravix/core/verdict/judges/judge";
import { useKeepAwake } from "expo-keep-awake";
import { router } from "expo-router";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { Alert } from "../../ui/alert";
import { Screen } from "../../ui/frame/screen";
import { goBack } from "../../ui/go-back";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type FoldedPreflight,
  type LoadedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";
import { EmergencyList, EmergencyNow } from "./live/emergency";
import { LiveRunUp } from "./live/live-run-up";
import { monitorOf } from "./live/monitor-of";
import { ManualRunUpEntry, type TypedNumbers } from "./manual/manual-run-up-entry";
import { TypedPage } from "./manual/manual-run-up-page";
import { useTypedRunUp } from "./manual/use-manual-run-up";
import { useSimulatedFault } from "./practice/simulated-fault";
import { ProcedureEntry } from "./procedure-entry";
import { ReadPage } from "./read/read-page";
import { engineWithAnswers, type Measured, useReadRunUp } from "./read/use-read-run-up";
import { forTheRecord, useRecordRunUp } from "./read/use-record";
import { FileWay } from "./run-up-file-entry";
import { RunUpSourcePicker } from "./run-up-source-picker";

/** Run-up page: from the monitor, a file, or by hand; read, judged, explained, and recorded with one tap. */
export function RunUpScreen({ id, engine }: { id: string; engine?: string }) {
  return <PreflightFrame id={id}>{(folded) => <Desk folded={folded} name={engine} />}</PreflightFrame>;
}

function Desk({ folded, name }: { folded: FoldedPreflight; name: string | undefined }) {
  useKeepAwake();
  const preflight = useLoadedPreflight(folded);
  const engine = useMemo(() => runUpEngine(preflight, name), [preflight, name]);
  if (!engine)
    return (
      <Screen back={`/preflight/${preflight.state.id}`}>
        <PageHead>No run-up on file</PageHead>
        <Text>
          This type has no run-up figures on file. Its items are answered one by one in the preflight.
        </Text>
      </Screen>
    );
  return <RunUpEngineEntry preflight={preflight} engine={engine} />;
}

type Way = "choose" | "live" | "practice" | "file" | "typed";

function RunUpEngineEntry({ preflight, engine }: { preflight: LoadedPreflight; engine: RunUpEngine }) {
  const wide = useWide();
  const acts = usePreflightActions(preflight);
  const write = useRecordRunUp(preflight);
  const planted = useSimulatedFault();
  const [way, setWay] = useState<Way>("choose");
  const [round, setRound] = useState(0);
  const [remedy, setRemedy] = useState<"cleared" | undefined>();
  const [emergency, setEmergency] = useState<Shown | "pick">();
  const [procedure, setProcedure] = useState<Procedure>();
  const [guess, setGuess] = useState<string>();
  /** Values from an incomplete trace, for a pilot who enters the rest. */
  const [known, setKnown] = useState<ReturnType<typeof manualValuesFromTrace>>();
  const hand = useTypedRunUp(preflight, engine);
  const { profile } = engine;
  const words = sideNames(profile);
  const id = preflight.state.id;
  const { read, problem, begin, take, tell, forget } = useReadRunUp(preflight, engine);
  const toPreflight = () => goBack(`/preflight/${id}`);
  const block = blockedBy(preflight.list, preflight.state, engine.baseItem);
  const practice = way === "practice" || (way === "choose" && read?.practice === true);

  const readIt = async (measured: Measured) => {
    await take({
      ...measured,
      ...(practice && { practice }),
      ...(remedy && { remedy }),
      ...(procedure === "clear" && { cleared: true }),
    });
    setRemedy(undefined);
    setProcedure(undefined);
    setWay("choose");
  };
  const onEnd = (how: string, trace: Trace | undefined, marks: Mark[], side?: "right" | "left") => {
    if (!trace) {
      setProcedure(undefined);
      setWay("choose");
      return;
    }
    const told: Observation[] =
      how === "no drop" && side
        ? [
            {
              feature: "turned",
              state: "confirmed",
              side,
              words: `Confirmed: the ignition was on ${words[side]}.`,
            },
          ]
        : [];
    if (how === "no drop" && side) setEmergency({ id: "no drop", side, practice });
    if (how === "stopped" && side) setEmergency({ id: "stops on one", side, practice });
    void readIt({ trace, source: "monitor", marks, told });
  };

  const onTyped = (numbers: TypedNumbers) => {
    const end = hand.give(numbers);
    if (end.to === "card") setEmergency({ id: end.id, side: end.side, practice: false });
    if (end.to === "preflight") toPreflight();
  };

  if (emergency === "pick")
    return (
      <EmergencyList
        onPick={(picked) => setEmergency({ id: picked, practice })}
        onBack={() => setEmergency(undefined)}
      />
    );
  if (emergency)
    return (
      <EmergencyNow
        id={emergency.id}
        profile={profile}
        practice={emergency.practice}
        where={emergency.side ? `on ${words[emergency.side]}` : ""}
        onBack={() => setEmergency(undefined)}
        onLog={(text) => {
          if (read && !read.practice)
            write(
              forTheRecord(preflight, engineWithAnswers(engine, read), read.answer, read.trace, read.source),
            );
          const { side } = emergency;
          const key = side && readingKey(`magneto.${side}`, engine.name);
          const sideItem = key && preflight.list.items.find((item) => item.reading?.key === key);
          // Later judgements of the same side have the same cause.
          const cause = side ? causeOnEngine(magnetoCause(side), engine.name) : undefined;
          acts.found(sideItem || engine.baseItem, text, "stop", cause ? { cause } : {});
          router.replace(`/preflight/${id}/verdict`);
        }}
      />
    );

  if (procedure && procedure !== "clear")
    return (
      <ProcedureEntry
        preflight={preflight}
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
      ? monitorOf(preflight, engine, planted, { practice: way === "practice", round, cold: planted.cold })
      : undefined;
  if (listen) {
    const clearing = remedy || procedure === "clear";
    return (
      <LiveRunUp
        key={round}
        title={
          clearing
            ? `${preflight.list.registration}: clear the plug`
            : `${preflight.list.registration}${engine.name ? `, ${engine.name} engine` : ""}`
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

  if (hand.typed)
    return (
      <TypedPage
        title={`${preflight.list.registration}: run-up${engine.name ? `, ${engine.name} engine` : ""}`}
        engine={engine}
        read={hand.typed}
        wide={wide}
        onTell={hand.tell}
        onCleared={() => {
          hand.cleared();
          setWay("typed");
        }}
        onAgain={() => {
          hand.again();
          setWay("typed");
        }}
        onEmergency={() => setEmergency("pick")}
        onDone={() => {
          hand.drop();
          toPreflight();
        }}
      />
    );

  if (read && way === "choose")
    return (
      <ReadPage
        key={read.at}
        preflight={preflight}
        engine={engine}
        read={read}
        planted={planted}
        guess={guess}
        wide={wide}
        onGuess={setGuess}
        onTell={tell}
        onClear={() => {
          begin();
          setRemedy("cleared");
          setRound(round + 1);
          setWay(read.practice ? "practice" : "live");
        }}
        onAgain={() => {
          begin();
          forget();
          setKnown(undefined);
          setGuess(undefined);
          setRound(round + 1);
        }}
        onType={() => {
          begin();
          setKnown(manualValuesFromTrace(read.answer.reading, profile.firstSide));
          setWay("typed");
        }}
        onEmergency={() => setEmergency("pick")}
        onDone={() => {
          if (!read.practice) {
            write(
              forTheRecord(preflight, engineWithAnswers(engine, read), read.answer, read.trace, read.source),
            );
          }
          toPreflight();
        }}
      />
    );

  return (
    <Screen
      // Each page starts at its top.
      key={way}
      actions={
        <View className="flex-row gap-2">
          <Button
            tone="deck"
            className="min-h-16 flex-1"
            onPress={way === "choose" ? toPreflight : () => setWay("choose")}
          >
            Back
          </Button>
          <Button
            tone="deck"
            className="min-h-16 flex-1 border-4"
            onPress={() => setEmergency("pick")}
            testID="emergency"
          >
            Emergency
          </Button>
        </View>
      }
    >
      <PageHead>
        {way === "typed"
          ? "Enter by hand"
          : way === "file"
            ? "Load a file"
            : `Run-up${engine.name ? `, ${engine.name} engine` : ""}`}
      </PageHead>
      {way === "choose" && <Text className="text-sm text-voice">Choose where the numbers come from.</Text>}
      {problem && <Alert>{problem}</Alert>}
      {block && way === "choose" && (
        <Alert frame="line" className="my-2">
          {block.why}
        </Alert>
      )}
      {way === "choose" && (
        <RunUpSourcePicker
          engine={engine}
          planted={planted}
          onWay={(picked) => {
            begin();
            // Another run-up has its own numbers.
            setKnown(undefined);
            setWay(picked);
          }}
          onProcedure={(picked) => {
            begin();
            setProcedure(picked);
            setRound(round + 1);
            if (picked === "clear") setWay("live");
          }}
        />
      )}
      {way === "typed" && (
        <ManualRunUpEntry
          engine={engine}
          draft={`typed run-up:${id}:${engine.name ?? "engine"}`}
          known={known}
          onDone={onTyped}
        />
      )}
      {way === "file" && (
        <FileWay
          registration={preflight.list.registration}
          cylinders={profile.cylinders}
          onRead={({ trace }) => void readIt({ trace, source: "file" })}
        />
      )}
      {way === "choose" && engine.densityAltitudeFt !== undefined && (
        <Text className="mt-3 text-sm text-voice">
          {`Density altitude about ${formatNumber(engine.densityAltitudeFt)} ft ${engine.settingHpa === undefined ? "at standard pressure" : `at ${formatNumber(engine.settingHpa)} hPa`}${engine.lean ? ": lean before checking the drops" : ""}.`}
        </Text>
      )}
    </Screen>
  );
}

/** Emergency card shown, its side, and whether it is practice. */
interface Shown {
  id: Emergency;
  side?: "right" | "left";
  practice: boolean;
}
