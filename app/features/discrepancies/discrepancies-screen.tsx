import type { DiscrepancyDetail } from "@cravix/contract/client";
import type { PlanView as Plan, Station } from "@cravix/core/aircraft/aircraft-type";
import type { Photograph } from "@cravix/core/airworthiness/life/photograph";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { useFocusEffect } from "expo-router";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { withPhotographs } from "../../store/preflight/unsynced-events";
import { useBundle, useCrew, useDiscrepancies } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { type Bead, PlanView } from "../../ui/aircraft/plan-view";
import { dayText } from "../../ui/day-and-time";
import { useFormsSoon } from "../../ui/form/form-library";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { ListRow } from "../../ui/input/list-row";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { withMeasure } from "../../ui/with-measure";
import { Photographs } from "../photographs";
import { LogParts, PlaceFrame } from "../shell";
import { DiscrepancyActions } from "./discrepancy-actions";
import { Measured } from "./measured";
import { SignOff } from "./sign-off";
import { useAircraftOrLate } from "./use-aircraft-or-late";

/** Longer texts are not shown as a heading. */
const LONG_TEXT = 110;

type Shown = DiscrepancyDetail | undefined;

/** Discrepancies of the group's aircraft: open ones first, with their measures. */
export function DiscrepanciesScreen() {
  useFormsSoon();
  const wide = useWide();
  const ready = useAppSelector((state) => state.session.ready);
  const { data, refetch: load } = useDiscrepancies(ready);
  const [chosen, setChosen] = useState<string>();
  useFocusEffect(load);
  const items = data?.items ?? [];
  const rank = (d: DiscrepancyDetail) => -FINDING_GRADES.indexOf(d.grade);
  const open = items.filter((d) => !d.closed && !d.withdrawn && !d.merged).sort((a, b) => rank(a) - rank(b));
  const closed = items.filter((d) => d.closed && !d.withdrawn);
  const withdrawn = items.filter((d) => d.withdrawn);
  const merged = items.filter((d) => d.merged && !d.closed && !d.withdrawn);
  const shown: Shown = items.find((d) => d.id === chosen) ?? (wide ? (open[0] ?? closed[0]) : undefined);
  const besides = (d: DiscrepancyDetail) =>
    open.filter((one) => one.id !== d.id && one.registration === d.registration);
  const evidenceOf = (d: DiscrepancyDetail) => items.filter((one) => one.merged?.into === d.id);
  const part = (title: string, all: readonly DiscrepancyDetail[]) =>
    all.length > 0 && (
      <View className="gap-2">
        <Heading className="mt-2 text-lg">{`${title}: ${all.length}`}</Heading>
        {all.map((d) => (
          <View key={d.id} className="gap-2">
            <Row
              discrepancy={d}
              chosen={d.id === shown?.id}
              onPress={() => setChosen(d.id === chosen && !wide ? undefined : d.id)}
            />
            {!wide && d.id === shown?.id && (
              <Detail discrepancy={d} others={besides(d)} evidence={evidenceOf(d)} onSigned={load} />
            )}
          </View>
        ))}
      </View>
    );
  return (
    <PlaceFrame
      name="Log"
      parts={<LogParts here="/log" />}
      list={
        <>
          {data?.remembered && (
            <Text className="text-sm">
              No network: this is the last version from the server. Discrepancies found on this device since
              then are still to be sent.
            </Text>
          )}
          {!data && <Text className="text-voice">Fetching the log …</Text>}
          {data && open.length === 0 && <Text className="text-voice">No open discrepancies.</Text>}
          {part("Open", open)}
          {part("Signed off", closed)}
          {part("Merged", merged)}
          {part("Withdrawn", withdrawn)}
        </>
      }
      detail={
        shown && (
          <Detail
            key={shown.id}
            discrepancy={shown}
            others={besides(shown)}
            evidence={evidenceOf(shown)}
            onSigned={load}
          />
        )
      }
    />
  );
}

function Row({
  discrepancy: d,
  chosen,
  onPress,
}: {
  discrepancy: DiscrepancyDetail;
  chosen: boolean;
  onPress: () => void;
}) {
  const isOpen = !d.closed && !d.withdrawn && !d.merged;
  return (
    <ListRow chosen={chosen} onPress={onPress}>
      <GradeMark grade={isOpen ? d.grade : "within limits"} />
      <View className="shrink grow">
        <Text className="font-mid" numberOfLines={2}>
          {`${d.registration}: ${withMeasure(d.text, d.measure)}`}
        </Text>
        <Text className="text-sm text-voice">
          {isOpen
            ? `${GRADE_WORD[d.grade]} · ${dayText(d.openedAt)}`
            : d.closed
              ? `Signed off · ${dayText(d.closed.at)}`
              : d.merged
                ? `Merged · ${dayText(d.merged.at)}`
                : `Withdrawn · ${dayText(d.withdrawn?.at ?? d.openedAt)}`}
        </Text>
      </View>
    </ListRow>
  );
}

/** One discrepancy with its history and sign-off. */
function Detail({
  discrepancy: d,
  others,
  evidence,
  onSigned,
}: {
  discrepancy: DiscrepancyDetail;
  /** Other open discrepancies of the same aircraft. */
  others: readonly DiscrepancyDetail[];
  /** Discrepancies merged into this one. */
  evidence: readonly DiscrepancyDetail[];
  onSigned: () => void;
}) {
  const wide = useWide();
  const crew = useCrew();
  const type = useBundle(d.registration)?.type;
  const settled = useAircraftOrLate(d.registration);
  const station = type?.stations.find((s) => s.id === d.stationId);
  const name = (id: string) => crew.find((member) => member.id === id)?.name ?? id;
  const story: { at: string; text: string }[] = [
    { at: d.openedAt, text: `Logged by ${d.openedByName}${d.openedMeasure ? `: ${d.openedMeasure}` : ""}` },
    ...d.observations.map((o) => ({
      at: o.at,
      text: `${o.state}${o.measure ? `, ${o.measure}` : ""} (${name(o.crewId)})`,
    })),
    ...evidence.map((one) => ({
      at: one.openedAt,
      text: `Merged into this one: ${withMeasure(one.text, one.measure)} (${one.openedByName})`,
    })),
    ...(d.grades ?? []).map((one) => ({
      at: one.at,
      text: `Grade changed to ${GRADE_WORD[one.grade]} (${name(one.crewId)}): ${one.why}`,
    })),
    ...(d.asked ?? []).map((one) => ({
      at: one.at,
      text: `Asked ${one.whom}, ${one.by} (${name(one.crewId)}): ${one.said}`,
    })),
    ...(d.merged
      ? [
          {
            at: d.merged.at,
            text: `Merged with another discrepancy (${name(d.merged.crewId)})`,
          },
        ]
      : []),
    ...(d.deferred ? [{ at: d.deferred.at, text: `Deferred by ${name(d.deferred.crewId)}` }] : []),
    ...(d.closed
      ? [
          {
            at: d.closed.at,
            text: `${d.closed.noFault ? "No fault found, signed off" : "Signed off"} by ${name(d.closed.crewId)}: ${d.closed.how}`,
          },
        ]
      : []),
    ...(d.withdrawn
      ? [{ at: d.withdrawn.at, text: `Withdrawn by ${name(d.withdrawn.crewId)}, who logged it` }]
      : []),
  ].sort((a, b) => a.at.localeCompare(b.at));
  return (
    <View className="gap-3" testID="discrepancy-detail">
      {wide && (
        <View className="flex-row items-center gap-3">
          <GradeMark grade={d.closed || d.withdrawn ? "within limits" : d.grade} size={36} />
          <Heading className={`shrink ${d.text.length > LONG_TEXT ? "text-lg" : "text-2xl"}`}>
            {withMeasure(d.text, d.measure)}
          </Heading>
        </View>
      )}
      <Text className="text-voice">
        {[d.registration, station?.name ?? d.stationId, GRADE_WORD[d.grade]].filter(Boolean).join(" · ")}
      </Text>
      <View>
        {story.map(({ at, text }) => (
          <View key={`${at}${text}`} className="flex-row gap-4 border-b-2 border-stone py-1.5">
            <Text className={`${wide ? "w-36" : "w-28"} text-voice`}>{dayText(at)}</Text>
            <Text className="shrink">{text}</Text>
          </View>
        ))}
      </View>
      <View className={wide ? "flex-row gap-6" : ""}>
        {wide && type?.plan && station && <Where plan={type.plan} station={station} />}
        <View className={wide ? "min-w-0 flex-1" : ""}>
          <Pictures discrepancy={d} onTaken={onSigned} />
        </View>
      </View>
      {d.deferred && !d.closed && (
        <View className="rounded-xl bg-stone px-3 py-2" testID="deferred">
          <Text className="font-mid">
            {`Deferred for ${d.deferred.for.join(" and ")} flights${d.deferred.until ? ` until ${d.deferred.until}` : ""}`}
          </Text>
          <Text>
            {[d.deferred.placard && `Placard: ${d.deferred.placard}`, d.deferred.deactivated]
              .filter(Boolean)
              .join("; ")}
          </Text>
        </View>
      )}
      {settled && <Measured discrepancy={d} onDone={onSigned} />}
      {settled && !d.closed && !d.withdrawn && !d.merged && (
        <>
          <DiscrepancyActions discrepancy={d} others={others} onDone={onSigned} />
          <SignOff discrepancy={d} onSigned={onSigned} />
        </>
      )}
    </View>
  );
}

/** Photos of a discrepancy, and adding one while it is open. */
function Pictures({ discrepancy: d, onTaken }: { discrepancy: DiscrepancyDetail; onTaken: () => void }) {
  const dispatch = useAppDispatch();
  const [here, setHere] = useState<Photograph[]>([]);
  const open = !d.closed && !d.withdrawn && !d.merged;
  return (
    <Photographs
      photographs={withPhotographs(d.photographs, here) ?? []}
      onAdd={
        open
          ? (one) => {
              dispatch(recordOfAircraft("discrepancy.photographed", { ...one, discrepancyId: d.id }));
              setHere((before) => [...before, one]);
              onTaken();
            }
          : undefined
      }
    />
  );
}

/** Its location on the aircraft. */
function Where({ plan, station }: { plan: Plan; station: Station }) {
  const { x, y } = station;
  if (x === undefined || y === undefined) return null;
  const bead: Bead = {
    stationId: station.id,
    name: station.name,
    x,
    y,
    state: "here",
    flagged: true,
    left: 0,
    detail: "",
  };
  return (
    <View className="h-[220px] w-[270px]" aria-hidden>
      <PlanView plan={plan} beads={[bead]} />
    </View>
  );
}
