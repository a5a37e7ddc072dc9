import type { Verdict } from "@cravix/core/judgement/judgement";
import { entryText } from "@cravix/core/ledger/fold-ledger";
import { rushedSequences } from "@cravix/core/pace/hasty-runs";
import { formatQuantity } from "@cravix/core/units/format";
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
import { GRADE_WORD, GradeMark, VERDICT_GRADE } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { JudgementCard } from "../../ui/judgement-card";
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
    if (decision === "fly" && list.lineUp) router.replace(lineUpCheck);
  };
  const lineUpCheck = `/preflight/${state.id}/line-up` as const;
  const pilot = crew.find((member) => member.id === state.crewId)?.name ?? state.crewId;
  const mine = me === state.crewId;
  const title = verdict ? TITLE[verdict] : "Not finished";
  const signer = crew.find((member) => member.id === state.signed?.crewId)?.name;
  const mayFly =
    finished &&
    (verdict === "go" ||
      verdict === "go with notes" ||
      (verdict === "ask first" && askedCrewId !== undefined));
  const afterwards = state.signed?.decision === "fly" && list.after;
  const actions = state.signed ? (
    <View className="gap-2">
      {state.signed.decision === "fly" && list.lineUp && (
        <Button tone="deck" onPress={() => router.replace(lineUpCheck)}>
          Line-up check
        </Button>
      )}
      {afterwards && (
        <Button tone="deck" onPress={() => router.replace(`/preflight/${state.id}/after`)}>
          After-flight checks
        </Button>
      )}
      <Button
        tone="primary"
        className="min-h-20"
        textClassName="text-xl"
        onPress={() => router.replace("/")}
        testID="primary"
      >
        Go to Aircraft
      </Button>
    </View>
  ) : !mine ? (
    <View className="gap-2">
      <Text className="text-deck-ink" testID="not-my-flight">
        {pilot} started this preflight and must sign it. To sign, select {pilot} on the Aircraft page.
      </Text>
      <Button tone="deck" className="min-h-16" onPress={() => router.replace("/")}>
        Go to Aircraft
      </Button>
    </View>
  ) : (
    <View className="flex-row gap-3">
      <Button tone="deck" className="min-h-24 flex-1" onPress={() => sign("not flying")}>
        Sign: not flying
      </Button>
      {mayFly ? (
        <Button
          tone="primary"
          className="min-h-24 flex-[1.5]"
          textClassName="text-xl"
          onPress={() => sign("fly")}
          testID="primary"
        >
          {verdict === "ask first" ? "I asked: accept the aircraft" : "Accept the aircraft"}
        </Button>
      ) : unanswered[0] ? (
        <Button
          tone="primary"
          className="min-h-24 flex-[1.5]"
          textClassName="text-xl"
          onPress={() => unanswered[0] && go(unanswered[0].id)}
          testID="primary"
        >
          {`Continue: ${unanswered.length} items open`}
        </Button>
      ) : null}
    </View>
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
          {unanswered.length > 0 && (
            <View className="gap-2">
              <Heading className="text-lg">Still open: {unanswered.length}</Heading>
              {unanswered.slice(0, 6).map((item) => (
                <Button
                  key={item.id}
                  className="items-start"
                  textClassName="text-base text-left"
                  onPress={() => go(item.id)}
                  disabled={Boolean(state.signed)}
                >
                  {`${list.stations.find((s) => s.id === item.station)?.name}: ${item.title}`}
                </Button>
              ))}
              {unanswered.length > 6 && (
                <Text className="text-sm text-voice">and {unanswered.length - 6} more</Text>
              )}
            </View>
          )}
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
            <View className="gap-2">
              <Heading className="text-lg">Who did you ask?</Heading>
              <Text className="text-sm text-voice">
                Ask one of these people, tell them the reasons above, then select who you asked.
              </Text>
              <View className="flex-row flex-wrap gap-2">
                {crew
                  .filter(
                    (member) => member.id !== me && ["mechanic", "instructor", "owner"].includes(member.role),
                  )
                  .map((member) => (
                    <Toggle
                      key={member.id}
                      on={askedCrewId === member.id}
                      onPress={() => setAsked(member.id)}
                    >
                      {`${member.name}, ${member.role}`}
                    </Toggle>
                  ))}
              </View>
            </View>
          )}
        </View>
        <View className={wide ? "flex-1 gap-2" : "gap-2"}>
          <Heading className="text-lg">Measured and within limits: {withinLimits.length}</Heading>
          {withinLimits.map((judgement) => (
            <View key={judgement.id} className="border-b-2 border-stone pb-1">
              <View className="flex-row items-center gap-2">
                <GradeMark grade="within limits" size={14} />
                <Text className="shrink grow text-sm">{judgement.subject}</Text>
                {judgement.reading && (
                  <Text className="shrink-0 font-strong">{formatQuantity(judgement.reading)}</Text>
                )}
              </View>
              <Text className="pl-6 text-xs text-voice">
                {[
                  judgement.limit,
                  judgement.margin && `margin ${formatQuantity(judgement.margin)}`,
                  judgement.source?.text,
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </Text>
            </View>
          ))}
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

function ReasonCard({ reason, station }: { reason: Reason; station: string | undefined }) {
  if (reason.judgement)
    return (
      <View className="gap-1">
        <JudgementCard judgement={{ ...reason.judgement, grade: reason.grade }} />
        {reason.waived !== undefined && (
          <Text className="border-l-2 border-stone pl-3 text-sm">{`Going without: “${reason.waived}”`}</Text>
        )}
        {reason.evidence?.map((one) => (
          <Text key={one.id} className="border-l-2 border-stone pl-3 text-sm">
            {one.subject}: {one.sentence}
          </Text>
        ))}
      </View>
    );
  return (
    <View
      className={`rounded-xl bg-stone px-3 py-2 ${reason.grade === "stop" ? "border-l-8 border-clay" : ""}`}
    >
      <View className="flex-row items-center gap-2">
        <GradeMark grade={reason.grade} />
        <Text className={`font-strong ${reason.grade === "stop" ? "text-clay" : ""}`}>
          {GRADE_WORD[reason.grade]}
        </Text>
        <Text className="shrink text-sm text-voice">{station}</Text>
      </View>
      <Text className="mt-0.5">{reason.text}</Text>
    </View>
  );
}
