import type { Verdict } from "@cravix/core/judgement/judgement";
import { entryText } from "@cravix/core/ledger/fold-ledger";
import { rushedSequences } from "@cravix/core/pace/hasty-runs";
import { toLog } from "@cravix/core/verdict/to-log";
import type { Reason } from "@cravix/core/verdict/verdict";
import { router } from "expo-router";
import { Fragment, useMemo, useState } from "react";
import { View } from "react-native";
import type { EventInput } from "../../store/preflight/record";
import { closePreflight, flyPreflight, signPreflight } from "../../store/preflight/sign-preflight";
import { refresh, useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { ProgressLine } from "../../ui/aircraft/progress-line";
import { Alert } from "../../ui/alert";
import { Screen } from "../../ui/frame/screen";
import { GradeMark, VERDICT_GRADE } from "../../ui/grade-mark";
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
  useVerdict,
} from "../open-preflight";
import { SaveStatus } from "../shell";
import { NotAssessed } from "./not-assessed";
import { ReasonCard } from "./reason-card";
import { VerdictActions } from "./verdict-actions";
import { StillOpen, WhoAsked, WithinLimits } from "./verdict-parts";

const TITLE: Record<Verdict, string> = {
  go: "Go",
  "go with notes": "Go, with notes",
  "ask first": "Ask first",
  stop: "Stop",
};

/** True if changing the load can cure it. */
const isOfLoad = ({ judgement, unknown }: Reason) =>
  judgement?.id === "mass.balance" || unknown === "loading";

export function VerdictScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Judged folded={folded} />}</PreflightFrame>;
}

function Judged({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const result = useVerdict(folded);
  const dispatch = useAppDispatch();
  const wide = useWide();
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  const [askedCrewId, setAsked] = useState<string>();
  const [changed, setChanged] = useState(false);
  const { list, state } = folded;
  const { verdict, withinLimits, unanswered, outstanding } = result;
  const found = result.reasons.filter(({ unknown, waived }) => !unknown || waived !== undefined);
  const finished = unanswered.length === 0 && outstanding.length === 0;
  const go = (itemId: string) => {
    acts.visit(itemId);
    router.replace(`/preflight/${state.id}`);
  };
  const sign = async (decision: "fly" | "not flying") => {
    const happenings: EventInput[] = toLog(list, state, result.reasons);
    happenings.push({
      type: "verdict.signed",
      data: {
        verdict: verdict ?? "unfinished",
        decision,
        reasons: result.reasons.map((r) => r.text.slice(0, 500)),
        ...(askedCrewId && { askedCrewId }),
      },
    });
    if (!(await dispatch(signPreflight(state.id, happenings)))) {
      setChanged(true);
      return;
    }
    // After accepting, the preflight stays open for its after-flight checks.
    await dispatch(decision === "fly" && list.after ? flyPreflight(state.id) : closePreflight(state.id));
    void refresh(dispatch, list.registration);
    if (decision === "fly" && list.lineUp) router.replace(`/preflight/${state.id}/line-up`);
  };
  const mine = me === state.crewId;
  const title = verdict ? TITLE[verdict] : "Not finished";
  const signer = crew.find((member) => member.id === state.signed?.crewId)?.name;
  const actions = (
    <VerdictActions
      folded={folded}
      result={result}
      asked={askedCrewId !== undefined}
      mine={mine}
      onSign={(decision) => void sign(decision)}
      onGo={go}
    />
  );
  const aboard = list.loading && mine && !state.signed && (
    <Button
      className="self-start px-5"
      textClassName="text-base"
      testID="load-today"
      onPress={() => router.push(`/preflight/${state.id}/load`)}
    >
      {state.plannedLoad ? "Change the load" : "Enter the load"}
    </Button>
  );
  // What speaks against flying comes before what is merely unknown.
  const pressing = found.some(({ grade }) => grade === "stop" || grade === "ask");
  const open = (
    <NotAssessed preflight={preflight} result={result} mayDecide={mine && !state.signed} onGo={go} />
  );
  return (
    <Screen actions={actions}>
      <View className="flex-row items-baseline justify-between">
        <Text className="font-strong text-lg">{list.registration}</Text>
        <SaveStatus />
      </View>
      <ProgressLine
        progress={preflight.progress}
        current={undefined}
        onPress={(phase) => {
          const first = list.items.find(
            (i) => list.stations.find((s) => s.id === i.station)?.phase === phase,
          );
          if (first && !state.signed) go(first.id);
        }}
      />
      <View className="mt-1 flex-row items-center gap-3" testID="verdict">
        <GradeMark grade={verdict ? VERDICT_GRADE[verdict] : "unjudged"} size={48} />
        <PageHead className={`text-4xl ${verdict === "stop" ? "text-clay" : ""}`}>{title}</PageHead>
      </View>
      {state.signed && (
        <Text className="mt-1 font-mid" testID="signed">
          Signed: {state.signed.decision}, {signer ?? state.signed.crewId},{" "}
          {new Date(state.signed.at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" })}
        </Text>
      )}
      <Text className="mt-1 text-sm text-voice">
        The pilot in command decides. The aircraft's handbook, local rules and licensed maintenance come
        first. Limits here are example values.
      </Text>

      {changed && !state.signed && (
        <Alert frame="box" className="mt-2">
          An answer changed in another window. The verdict is updated: review it, then sign.
        </Alert>
      )}

      <PaceReminder preflight={preflight} />

      <View className={wide ? "mt-4 flex-row gap-6" : "mt-4 gap-5"}>
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          <StillOpen unanswered={unanswered} list={list} disabled={Boolean(state.signed)} onGo={go} />
          {outstanding.map((entry) => (
            <View key={entry.thing} className="rounded-xl border-2 border-ink bg-chock px-3 py-2">
              <Text className="font-strong text-on-chock">{entryText(list, entry)}</Text>
            </View>
          ))}
          {!pressing && open}
          <Heading className="text-lg">
            {found.length > 0
              ? `Reasons: ${found.length}`
              : verdict
                ? "No problems found"
                : "No problems found so far"}
          </Heading>
          {found.map((reason) => (
            <Fragment key={reason.cause ?? reason.discrepancyId ?? `${reason.itemId}${reason.text}`}>
              <ReasonCard
                reason={reason}
                station={list.stations.find((s) => s.id === reason.stationId)?.name}
              />
              {isOfLoad(reason) && aboard}
            </Fragment>
          ))}
          {pressing && open}
          {!result.reasons.some(isOfLoad) && aboard}
          {verdict === "ask first" && !state.signed && finished && (
            <WhoAsked asked={askedCrewId} onAsked={setAsked} />
          )}
        </View>
        <View className={wide ? "flex-1 gap-2" : "gap-2"}>
          <WithinLimits judgements={withinLimits} />
        </View>
      </View>
    </Screen>
  );
}

/** Friendly note on pace before the signature, for the pilot. */
function PaceReminder({ preflight: { list, state } }: { preflight: LoadedPreflight }) {
  const runs = useMemo(() => rushedSequences(list, state), [list, state]);
  const items = runs.reduce((sum, run) => sum + run.items.length, 0);
  return (
    <View className="mt-2 flex-row flex-wrap items-center gap-x-4">
      {runs.length > 0 && (
        <Text className="shrink text-sm" testID="pace-reminder">
          {`${items} answers were too quick for a proper look.`}
        </Text>
      )}
      <Button
        tone="bare"
        className="px-0"
        textClassName="text-base"
        onPress={() => router.push(`/preflight/${state.id}/debrief`)}
      >
        Preflight debrief
      </Button>
    </View>
  );
}
