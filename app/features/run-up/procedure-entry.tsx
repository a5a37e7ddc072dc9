import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { itemsOf } from "@cravix/core/checklist/list/list-places";
import type { Judgement } from "@cravix/core/judgement/judgement";
import { readingKey } from "@cravix/core/readings/reading-keys";
import {
  cleanTrace,
  judgeGroundLeaning,
  judgeIdleHold,
  judgeWarmUp,
  type Mark,
  oilNow,
  type Procedure,
  procedureSequence,
  type RunUpProfile,
  readGroundLeaning,
  readRunUp,
  type Trace,
} from "@cravix/core/run-up";
import { convertTo, type RunUpEngine } from "@cravix/core/run-up-entry";
import { useState } from "react";
import { View } from "react-native";
import { record } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { JudgementCard } from "../../ui/judgement-card";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";
import { LiveRunUp } from "./live/live-run-up";
import { monitorOf } from "./live/monitor-of";
import type { SimulatedFaultChoice } from "./practice/simulated-fault";
import { PROCEDURE_WORDS } from "./procedure-text";
import { TracePiece } from "./read/trace-piece";

export type Alone = Exclude<Procedure, "clear">;

interface Ended {
  trace: Trace;
  judgement: Judgement;
  /** Value to record. */
  value?: number;
}

/** One coached procedure that ends in a judged reading for its item. */
export function ProcedureEntry({
  preflight,
  engine,
  procedure,
  planted,
  wide,
  onBack,
  onEmergency,
}: {
  preflight: LoadedPreflight;
  engine: RunUpEngine;
  procedure: Alone;
  planted: SimulatedFaultChoice;
  wide: boolean;
  onBack: () => void;
  onEmergency: () => void;
}) {
  const dispatch = useAppDispatch();
  const [round, setRound] = useState(0);
  const [ended, setEnded] = useState<Ended>();
  const { profile } = engine;
  const title = PROCEDURE_WORDS[procedure];
  const listen = monitorOf(preflight, engine, planted, {
    practice: false,
    round,
    cold: procedure === "warm up",
  });
  if (!listen) return null;
  if (!ended)
    return (
      <LiveRunUp
        key={round}
        title={`${preflight.list.registration}: ${title.toLowerCase()}`}
        profile={profile}
        wide={wide}
        practice={false}
        sequence={() => procedureSequence(procedure, profile)}
        listen={listen}
        onEnd={(_how, trace, marks) =>
          trace && trace.t.length > 9 ? setEnded(endOf(procedure, trace, marks, profile)) : onBack()
        }
        onEmergency={onEmergency}
      />
    );
  const { trace, judgement, value } = ended;
  const item = itemOf(preflight, engine, procedure);
  const from = trace.t[0] ?? 0;
  const to = trace.t.at(-1) ?? from;
  return (
    <Screen
      actions={
        <View className="flex-row gap-2">
          <Button tone="deck" className="min-h-16 flex-1" onPress={onBack}>
            Back
          </Button>
          <Button
            tone="deck"
            className="min-h-16 flex-1"
            onPress={() => {
              setEnded(undefined);
              setRound(round + 1);
            }}
          >
            Repeat
          </Button>
          {item && (
            <Button
              tone="primary"
              className="min-h-16 flex-[1.7]"
              textClassName="text-xl"
              testID="use-procedure"
              onPress={() => {
                const { id } = preflight.state;
                if (item.reading && value !== undefined)
                  dispatch(
                    record(id, "reading.taken", {
                      itemId: item.id,
                      key: item.reading.key,
                      value: convertTo(value, procedure === "idle" ? "rpm" : "°F", item.reading),
                      unit: item.reading.unit,
                    }),
                  );
                else if (judgement.grade === "within limits")
                  dispatch(record(id, "item.answered", { itemId: item.id, outcome: "checked" }));
                onBack();
              }}
              disabled={!item.reading && judgement.grade !== "within limits"}
            >
              Log this
            </Button>
          )}
        </View>
      }
    >
      <PageHead className="mb-3 text-3xl">{title}</PageHead>
      <View className="gap-4" testID={`judged-${procedure.replace(" ", "-")}`}>
        <JudgementCard judgement={judgement} />
        {procedure !== "warm up" && <TracePiece trace={trace} from={from} to={to} height={170} marks={[]} />}
        {procedure === "warm up" && trace.channels.oilTemperature && (
          <TracePiece
            trace={trace}
            from={from}
            to={to}
            height={170}
            marks={[]}
            values={trace.channels.oilTemperature}
            unit="oil, °F"
          />
        )}
        {procedure === "ground lean" && trace.channels.egt1 && (
          <TracePiece
            trace={trace}
            from={from}
            to={to}
            height={130}
            marks={[]}
            values={trace.channels.egt1}
            unit="EGT 1, °F"
          />
        )}
        {!item && (
          <Text className="text-voice">No item on this checklist asks for this, so it is not logged.</Text>
        )}
      </View>
    </Screen>
  );
}

function endOf(procedure: Alone, measured: Trace, marks: Mark[], profile: RunUpProfile): Ended {
  const { trace } = cleanTrace(measured);
  const to = trace.t.at(-1) ?? 0;
  switch (procedure) {
    case "warm up": {
      const oil = oilNow(trace);
      const minutes = (to - (marks[0]?.t ?? 0)) / 60;
      return {
        trace,
        judgement: judgeWarmUp(oil, minutes, profile),
        ...(oil !== undefined && { value: oil }),
      };
    }
    case "idle": {
      const { idle } = readRunUp(trace, profile, marks);
      return {
        trace,
        judgement: judgeIdleHold(idle, profile),
        ...(idle && { value: idle.floor }),
      };
    }
    case "ground lean":
      return { trace, judgement: judgeGroundLeaning(readGroundLeaning(trace, marks), profile) };
  }
}

/** Checklist item for this procedure, if there is one. */
function itemOf(preflight: LoadedPreflight, engine: RunUpEngine, procedure: Alone): Item | undefined {
  const items = itemsOf(preflight.list, "run-up");
  if (procedure === "ground lean") return items.find(({ traced }) => traced === "lean");
  const key = readingKey(procedure === "idle" ? "idle" : "oil.temperature", engine.name);
  return items.find(({ reading }) => reading?.key === key);
}
