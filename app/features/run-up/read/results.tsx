import type { Observation } from "@cravix/core/diagnosis";
import { GRADES } from "@cravix/core/judgement/judgement";
import type { Trace, TraceSource } from "@cravix/core/run-up";
import {
  type Check,
  checksOf,
  dropText,
  isOut,
  type RunUpEngine,
  sideNames,
  unreadSides,
} from "@cravix/core/run-up-entry";
import { type ReactNode, useMemo, useState } from "react";
import { Pressable, View } from "react-native";
import type { RunUpAnswer } from "../../../device/workers/run-up.worker";
import { JudgementCard } from "../../../ui/judgement-card";
import { Heading, Text } from "../../../ui/text";
import type { LoadedPreflight } from "../../open-preflight";
import { DiagnosisPanel } from "./diagnosis-panel";
import { TracePiece } from "./trace-piece";
import { forTheRecord, previewJudgements } from "./use-record";

/** Results of a trace: drops with their part of the trace, diagnosis, every check, and all judgements. */
export function Results({
  preflight,
  engine,
  answer,
  trace,
  source,
  wide,
  lesson,
  over,
  onTried,
}: {
  preflight: LoadedPreflight;
  engine: RunUpEngine;
  answer: RunUpAnswer;
  trace: Trace;
  source: TraceSource;
  wide: boolean;
  /** In practice: replaces diagnosis and judgements. */
  lesson?: ReactNode;
  /** Taxi back: no more tests. */
  over: boolean;
  /** Called with the outcome of a further test. */
  onTried: (observation: Observation) => void;
}) {
  const [open, setOpen] = useState<string | undefined>();
  const checks = useMemo(() => checksOf(answer.reading, engine), [answer, engine]);
  const judged = useMemo(
    () =>
      previewJudgements(preflight, engine, forTheRecord(preflight, engine, answer, trace, source)).sort(
        (a, b) => GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade),
      ),
    [preflight, engine, answer, trace, source],
  );
  const { reading } = answer;
  const told = [
    ...reading.notes.map((note) => note.sentence),
    ...reading.problems.map((problem) => problem.sentence),
  ];
  const lists = (
    <View className="gap-3">
      {told.map((words) => (
        <View key={words} className="border-l-4 border-chock pl-2">
          <Text>{words}</Text>
        </View>
      ))}
      <Heading className="text-lg">Checks found in the trace</Heading>
      <View>
        {checks.map((check) => (
          <CheckRow
            key={check.id}
            check={check}
            open={open === check.id}
            trace={trace}
            onPress={() => setOpen(open === check.id ? undefined : check.id)}
          />
        ))}
        {checks.length === 0 && <Text>No check found in this trace. Enter the numbers by hand.</Text>}
      </View>
    </View>
  );
  const cards = (
    <View className="gap-2">
      <Heading className="text-lg">Assessment</Heading>
      {judged.map((judgement) => (
        <JudgementCard
          key={judgement.id}
          judgement={judgement}
          compact={judgement.grade === "within limits"}
        />
      ))}
    </View>
  );
  return (
    <View className={wide ? "flex-row gap-8" : "gap-5"}>
      <View className={wide ? "flex-1 gap-5" : "gap-5"}>
        <MagnetoPlot answer={answer} engine={engine} trace={trace} />
        {lesson ?? (
          <DiagnosisPanel
            report={answer.report}
            out={checks.filter(({ bad }) => bad).map(({ name }) => name)}
            doubtful={reading.right?.doubt ?? reading.left?.doubt}
            unread={unreadSides(reading, sideNames(engine.profile))}
            remedied={answer.remedied}
            over={over}
            onTried={onTried}
          />
        )}
      </View>
      <View className={wide ? "flex-1 gap-5" : "gap-5"}>
        {lists}
        {!lesson && cards}
      </View>
    </View>
  );
}

function MagnetoPlot({
  answer: { reading },
  engine,
  trace,
}: {
  answer: RunUpAnswer;
  engine: RunUpEngine;
  trace: Trace;
}) {
  const { right, left } = reading;
  const sides = [right, left].filter((side) => side !== undefined).sort((a, b) => a.from - b.from);
  const first = sides[0];
  const last = sides.at(-1);
  if (!first || !last) return null;
  const words = sideNames(engine.profile);
  const most = engine.limits.maxDropRpm;
  return (
    <TracePiece
      trace={trace}
      from={first.from - 4}
      to={last.to + 4}
      base={first.base}
      {...(most !== undefined && {
        limit: {
          at: first.base - most,
          words: `limit ${Math.round(first.base - most).toLocaleString("en")}`,
        },
      })}
      marks={sides.map((side) => ({
        from: side.from,
        to: side.to,
        value: side.feel === "quit" ? "engine stopped" : side.seen ? dropText(side.drop) : "no drop",
        label: `${words[side.side]}${side.feel === "rough" ? " · rough" : ""}`,
        bad: isOut(reading, side.side, engine),
      }))}
    />
  );
}

function CheckRow({
  check,
  open,
  trace,
  onPress,
}: {
  check: Check;
  open: boolean;
  trace: Trace;
  onPress: () => void;
}) {
  return (
    <View className="border-b-2 border-stone">
      <Pressable
        role="button"
        aria-expanded={open}
        onPress={onPress}
        className="min-h-14 flex-row items-center gap-3 py-1"
        testID={`check-${check.id}`}
      >
        <Text className="w-[34%] shrink-0 text-voice">{check.name}</Text>
        <Text className={`w-[21%] shrink-0 font-strong text-lg ${check.bad ? "text-clay" : ""}`}>
          {check.value}
        </Text>
        <Text className="min-w-0 flex-1 text-sm text-voice">{check.more ?? ""}</Text>
      </Pressable>
      {open && (
        <TracePiece
          trace={trace}
          from={check.from - 3}
          to={check.to + 3}
          height={80}
          marks={[
            {
              from: check.from,
              to: check.to,
              label: check.name,
              value: check.value,
              ...(check.bad && { bad: true }),
            },
          ]}
        />
      )}
    </View>
  );
}
