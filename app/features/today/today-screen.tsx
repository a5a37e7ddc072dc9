import type { AircraftSummary } from "@cravix/contract/client";
import { PHASE_NAME } from "@cravix/contract/client";
import { currentItem, foldLoads, foldPreflight, phaseOf, phaseProgress } from "@cravix/core";
import { formatDistanceToNowStrict } from "date-fns/formatDistanceToNowStrict";
import { router, useFocusEffect } from "expo-router";
import { useCallback, useEffect, useState } from "react";
import { Pressable, View } from "react-native";
import { eventsOfPreflight, listOf } from "../../device/log/event-log";
import { useAppDispatch, useAppSelector } from "../../store/hooks";
import { refresh, useBundle, useCrew, useFleet } from "../../store/server/server-state";
import { crewPicked, nightSet } from "../../store/session-slice";
import type { OpenPreflight } from "../../store/walk/preflight-slice";
import { PlanView } from "../../ui/aircraft/plan-view";
import { GradeMark, VERDICT_GRADE } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import { PageHead } from "../../ui/page-head";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { withMeasure } from "../../ui/with-measure";
import { useOpenDiscrepancies } from "../discrepancies/use-open-discrepancies";
import { KeptMark } from "../sync/kept-mark";
import { AddFile } from "./add-file";

/** Who flies, which aircraft, and what has been open since. */
export function TodayScreen() {
  const dispatch = useAppDispatch();
  const wide = useWide();
  const { ready, crewId, night } = useAppSelector((state) => state.session);
  const fleet = useFleet();
  const server = useAppSelector((state) => state.sync.server);
  const open = useAppSelector((state) => state.preflight.open);
  const [chosen, setChosen] = useState<string>();
  const [picking, setPicking] = useState(false);
  // Without a choice the one whose walk is open here, else the one that was walked last: the group's list begins with it.
  const wanted = chosen ?? open.find((walk) => !walk.flying)?.registration;
  const aircraft =
    fleet?.aircraft.find((a) => a.registration === wanted) ?? fleet?.aircraft.find((a) => !a.stub);
  const shown = aircraft?.registration;
  useFocusEffect(
    useCallback(() => {
      if (ready) void refresh(dispatch, shown);
    }, [ready, dispatch, shown]),
  );
  const me = fleet?.crew.find((member) => member.id === crewId);
  const mine = open.filter((p) => p.registration === aircraft?.registration);
  const unfinished = mine.find((p) => !p.flying);
  const flying = mine.find((p) => p.flying);
  const goOn = () => {
    if (!aircraft || !me || aircraft.stub) return;
    router.push(unfinished ? `/preflight/${unfinished.preflightId}` : `/aircraft/${aircraft.registration}`);
  };
  useShortcuts({ Enter: goOn });
  const bundle = useBundle(aircraft?.registration ?? "");

  if (ready && !fleet)
    return (
      <Screen
        actions={
          <Button tone="primary" className="min-h-20" onPress={() => refresh(dispatch, shown)}>
            Try again
          </Button>
        }
      >
        <Heading level={1} className="mt-8 text-2xl">
          {server === "not reached" ? "No network, and nothing kept here yet" : "Fetching your aircraft …"}
        </Heading>
        <Text className="mt-2">
          The first time this device needs the server once, to fetch the lists. After that it works without a
          network.
        </Text>
      </Screen>
    );

  const choosing = picking || (fleet && !me);
  return (
    <Screen
      wideWidth={wide ? "max-w-[1240px]" : "max-w-3xl"}
      actions={
        choosing ? (
          <CrewPicker
            crewId={crewId}
            crew={fleet?.crew ?? []}
            onPick={(id) => {
              dispatch(crewPicked(id));
              setPicking(false);
            }}
          />
        ) : (
          <View className="gap-1">
            <Button
              tone="primary"
              className="min-h-20"
              textClassName="text-2xl"
              disabled={!aircraft || aircraft.stub !== null}
              onPress={goOn}
              testID="primary"
              hint={wide ? "Enter" : undefined}
            >
              {!aircraft
                ? "…"
                : aircraft.stub
                  ? "No list for this one yet"
                  : unfinished
                    ? `Go on with ${aircraft.registration}`
                    : `Prepare ${aircraft.registration}`}
            </Button>
            <View className="flex-row justify-between">
              <Button tone="bare-deck" textClassName="text-sm" onPress={() => setPicking(true)}>
                {me ? `${me.name}, ${me.role}` : "Who flies?"}
              </Button>
              <Button tone="bare-deck" textClassName="text-sm" onPress={() => router.push("/discrepancies")}>
                Discrepancies
              </Button>
              <Button
                tone="bare-deck"
                textClassName="text-sm"
                pressed={night}
                onPress={() => dispatch(nightSet(!night))}
              >
                {night ? "Day" : "Night"}
              </Button>
            </View>
          </View>
        )
      }
    >
      <View className="flex-row items-baseline justify-between">
        <Text className="font-strong text-lg">Cravix</Text>
        <KeptMark />
      </View>
      <View className={wide ? "mt-2 flex-row gap-8" : "mt-1"}>
        <View className={wide ? "flex-1" : ""}>
          {aircraft && (
            <>
              <PageHead>{aircraft.registration}</PageHead>
              <Text className="text-voice">
                {aircraft.typeName}, {aircraft.what}
              </Text>
              {/* Its place is kept while it comes: what a thumb is on its way to does not move. */}
              {!aircraft.stub && (
                <View className={wide ? "h-[330px]" : "h-[190px]"}>
                  {bundle?.type.plan && <PlanView plan={bundle.type.plan} beads={[]} />}
                </View>
              )}
              {aircraft.stub && <Text className="mt-3 rounded-xl bg-stone p-3">{aircraft.stub}</Text>}
            </>
          )}
        </View>
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          {unfinished && <Unfinished open={unfinished} />}
          {flying && (
            <Button
              className="border-ink bg-stone"
              onPress={() => router.push(`/preflight/${flying.preflightId}/after`)}
            >
              {`${flying.registration} is flying: put it away afterwards`}
            </Button>
          )}
          {aircraft && !aircraft.stub && <OpenSince aircraft={aircraft} />}
          <Heading className="mt-2 text-lg">The group's aircraft</Heading>
          <View className="gap-2">
            {(fleet?.aircraft ?? []).map((a) => (
              <AircraftRow
                key={a.registration}
                aircraft={a}
                chosen={a.registration === aircraft?.registration}
                onPress={() => setChosen(a.registration)}
              />
            ))}
          </View>
          <AddFile onAdded={() => refresh(dispatch, shown)} />
        </View>
      </View>
    </Screen>
  );
}

function CrewPicker({
  crew,
  crewId,
  onPick,
}: {
  crew: { id: string; name: string; role: string }[];
  crewId: string | null;
  onPick: (id: string) => void;
}) {
  return (
    <View className="gap-2">
      <Heading className="text-lg text-deck-ink">Who flies?</Heading>
      {crew.map((member) => (
        <Button
          key={member.id}
          tone={member.id === crewId ? "primary" : "deck"}
          onPress={() => onPick(member.id)}
        >
          {`${member.name}, ${member.role}`}
        </Button>
      ))}
    </View>
  );
}

/** The walk that was left: where it goes on. */
function Unfinished({ open }: { open: OpenPreflight }) {
  const [where, setWhere] = useState("");
  const [stillOn, setStillOn] = useState("");
  useEffect(() => {
    void (async () => {
      const events = await eventsOfPreflight(open.preflightId);
      const state = foldPreflight(open.preflightId, events);
      const list = state.listHash && (await listOf(state.listHash));
      if (!list) return;
      const { on, onSince } = foldLoads(list, state, Date.now());
      if (onSince !== undefined)
        setStillOn(
          `Still on, for ${formatDistanceToNowStrict(onSince)}: ${on.map((load) => load.name).join(", ")}.`,
        );
      const item = currentItem(list, state);
      const phase = item && phaseProgress(list, state).find((p) => p.phase === phaseOf(list, item));
      setWhere(
        item && phase
          ? `${PHASE_NAME[phase.phase]} ${phase.answered}/${phase.total}, at: ${item.title}`
          : "everything answered: sign the verdict",
      );
    })();
  }, [open.preflightId]);
  return (
    <View className="rounded-xl border-2 border-ink bg-chock px-3 py-2">
      <Text className="font-strong text-on-chock">Not finished</Text>
      <Text className="text-on-chock">{where}</Text>
      {stillOn !== "" && <Text className="font-strong text-on-chock">{stillOn}</Text>}
    </View>
  );
}

function OpenSince({ aircraft }: { aircraft: AircraftSummary }) {
  const bundle = useBundle(aircraft.registration);
  const open = useOpenDiscrepancies(bundle);
  const last = aircraft.lastPreflight;
  const crew = useCrew();
  return (
    <View className="gap-2">
      <Heading className="text-lg">Open since the last flights</Heading>
      {open.map((d) => (
        <View key={d.id} className="flex-row gap-3 rounded-xl bg-stone px-3 py-2">
          <View className="pt-0.5">
            <GradeMark grade={d.grade} />
          </View>
          <View className="shrink">
            <Text className="font-mid">{withMeasure(d.text, d.measure)}</Text>
            <Text className="text-sm text-voice">
              {formatDistanceToNowStrict(new Date(d.openedAt))}, {d.openedBy}
            </Text>
          </View>
        </View>
      ))}
      {bundle && open.length === 0 && <Text className="text-voice">Nothing is logged.</Text>}
      {last?.verdict && last.startedAt && (
        <View className="flex-row items-center gap-3 px-3">
          <GradeMark grade={last.verdict === "unfinished" ? "unjudged" : VERDICT_GRADE[last.verdict]} />
          <Text className="shrink text-sm">
            Last walk {formatDistanceToNowStrict(new Date(last.startedAt))} ago,{" "}
            {crew.find((m) => m.id === last.crewId)?.name}: {last.verdict}, {last.decision}
          </Text>
        </View>
      )}
    </View>
  );
}

function AircraftRow({
  aircraft,
  chosen,
  onPress,
}: {
  aircraft: AircraftSummary;
  chosen: boolean;
  onPress: () => void;
}) {
  return (
    <Pressable
      role="button"
      aria-pressed={chosen}
      onPress={onPress}
      className={`min-h-14 flex-row items-center justify-between rounded-xl border-2 px-3 ${chosen ? "border-ink bg-chock" : "border-stone"}`}
    >
      <Text className={`font-strong ${chosen ? "text-on-chock" : ""}`}>{aircraft.registration}</Text>
      <Text className={`shrink text-right text-sm ${chosen ? "text-on-chock" : "text-voice"}`}>
        {aircraft.typeName}
        {aircraft.stub
          ? ", list not written yet"
          : aircraft.openDiscrepancies > 0
            ? `, ${aircraft.openDiscrepancies} open`
            : ""}
      </Text>
    </Pressable>
  );
}
