import type { DiscrepancyDetail } from "@cravix/contract/client";
import { router, useFocusEffect } from "expo-router";
import { useEffect, useState } from "react";
import { View } from "react-native";
import { useAppDispatch, useAppSelector } from "../../store/hooks";
import { useBundle, useCrew, useDiscrepancies } from "../../store/server/server-state";
import { recordOfAircraft } from "../../store/walk/record";
import { dayText } from "../../ui/day-and-time";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { TextField } from "../../ui/input/text-field";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { withMeasure } from "../../ui/with-measure";
import { KeptMark } from "../sync/kept-mark";

/** What is logged on the group's aircraft: open first, each with how it was measured since. */
export function DiscrepanciesScreen() {
  const wide = useWide();
  const ready = useAppSelector((state) => state.session.ready);
  const toSend = useAppSelector((state) => state.sync.toSend);
  const { data, refetch: load } = useDiscrepancies(ready);
  useFocusEffect(load);
  // toSend: comes again when what was logged here has been sent.
  useEffect(() => {
    if (toSend === 0) load();
  }, [toSend, load]);
  const items = data?.items;
  const open = items?.filter((d) => !d.closed && !d.withdrawn) ?? [];
  const closed = items?.filter((d) => d.closed && !d.withdrawn) ?? [];
  const withdrawn = items?.filter((d) => d.withdrawn) ?? [];
  return (
    <Screen
      wideWidth={wide ? "max-w-[1240px]" : "max-w-3xl"}
      actions={
        <Button tone="primary" className="min-h-16" onPress={() => router.replace("/")}>
          To the aircraft
        </Button>
      }
    >
      <View className="flex-row items-baseline justify-between">
        <Heading level={1} className="text-2xl">
          Discrepancies
        </Heading>
        <KeptMark />
      </View>
      {data?.remembered && (
        <Text className="mt-1 text-sm">
          No network: this is what the server said last. What was found on this device since is on its way.
        </Text>
      )}
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-5"}>
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          <Heading className="text-lg">Open: {open.length}</Heading>
          {items && open.length === 0 && <Text className="text-voice">Nothing is logged.</Text>}
          {open.map((d) => (
            <OpenCard key={d.id} discrepancy={d} onSigned={load} />
          ))}
        </View>
        <View className={wide ? "flex-1 gap-2" : "gap-2"}>
          <Heading className="text-lg">Signed off: {closed.length}</Heading>
          {closed.map((d) => (
            <View key={d.id} className="border-b-2 border-stone pb-2">
              <Text className="font-mid">
                {d.registration}: {d.text}
              </Text>
              <Text className="text-sm text-voice">
                {d.closed && dayText(d.closed.at)}: {d.closed?.how}
              </Text>
            </View>
          ))}
          {withdrawn.length > 0 && (
            <>
              <Heading className="mt-3 text-lg">Logged by mistake: {withdrawn.length}</Heading>
              {withdrawn.map((d) => (
                <Withdrawn key={d.id} discrepancy={d} />
              ))}
            </>
          )}
        </View>
      </View>
    </Screen>
  );
}

/** It was withdrawn by who logged it: still here to be read, with who and when. */
function Withdrawn({ discrepancy: d }: { discrepancy: DiscrepancyDetail }) {
  return (
    <View className="border-b-2 border-stone pb-2">
      <Text className="font-mid">
        {d.registration}: {d.text}
      </Text>
      <Text className="text-sm text-voice">
        {d.withdrawn && dayText(d.withdrawn.at)}: withdrawn by {d.openedByName}, who logged it
      </Text>
    </View>
  );
}

function OpenCard({ discrepancy: d, onSigned }: { discrepancy: DiscrepancyDetail; onSigned: () => void }) {
  const dispatch = useAppDispatch();
  const crewId = useAppSelector((state) => state.session.crewId);
  const crew = useCrew();
  const station = useBundle(d.registration)?.type.stations.find((s) => s.id === d.stationId)?.name;
  const [how, setHow] = useState<string>();
  const mechanic = crew.find((member) => member.id === crewId)?.role === "mechanic";
  const name = (id: string) => crew.find((member) => member.id === id)?.name ?? id;
  const sign = () => {
    if (!how?.trim()) return;
    // Not part of any walk: a record of its own.
    dispatch(recordOfAircraft("discrepancy.closed", { discrepancyId: d.id, how: how.trim() }));
    setHow(undefined);
    onSigned();
  };
  return (
    <View className="gap-1 rounded-xl bg-stone px-3 py-3">
      <View className="flex-row items-center gap-2">
        <GradeMark grade={d.grade} />
        <Text className="font-strong">{GRADE_WORD[d.grade]}</Text>
        <Text className="shrink text-sm text-voice">
          {d.registration}, {station ?? d.stationId}
        </Text>
      </View>
      <Text className="font-mid text-lg">{withMeasure(d.text, d.measure)}</Text>
      <Text className="text-sm text-voice">
        {dayText(d.openedAt)}, {d.openedByName}
      </Text>
      {d.observations.map((o) => (
        <Text key={o.at + o.crewId} className="text-sm">
          {dayText(o.at)}: {o.state}
          {o.measure ? `, ${o.measure}` : ""} ({name(o.crewId)})
        </Text>
      ))}
      {mechanic && how === undefined && (
        <Button className="mt-1" textClassName="text-base" onPress={() => setHow("")}>
          Sign it off
        </Button>
      )}
      {mechanic && how !== undefined && (
        <View className="mt-1 gap-2">
          <TextField label="What was done" value={how} onChange={setHow} maxLength={2000} multiline />
          <Button tone="primary" onPress={sign} disabled={how.trim() === ""}>
            Sign off
          </Button>
        </View>
      )}
    </View>
  );
}
