import {
  classOf,
  flightKindsOf,
  isSoon,
  judgePerson,
  localDate,
  ownLimitsUnknown,
  personSentence,
} from "@cravix/core";
import { useMemo } from "react";
import { View } from "react-native";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { JudgementCard } from "../../ui/judgement-card";
import { Heading, Text } from "../../ui/text";
import { gradeOf } from "../airworthiness/grade-of";
import { usePersonDue } from "../people/use-person-due";
import type { KnownAircraft } from "./aircraft-frame";

/** Whether the pilot is in date for the planned flight. Private: nothing of it goes into the aircraft's record. */
export function PilotDue({ aircraft: { bundle, plan, crewId } }: { aircraft: KnownAircraft }) {
  const { record, unknown } = usePersonDue(crewId ?? undefined);
  const { flightMin, conditions } = plan;
  const rows = useMemo(() => {
    if (!record) return [];
    const zone = bundle.papers?.record.timeZone;
    const now = Date.now();
    return judgePerson(record, {
      today: localDate(new Date(now).toISOString(), zone),
      ends: localDate(new Date(now + (flightMin + 60) * 60_000).toISOString(), zone),
      kinds: flightKindsOf(conditions),
      class: classOf(bundle.type),
      registration: bundle.aircraft.registration,
    }).filter(({ verdict }) => verdict.state !== "not for this flight");
  }, [record, bundle, flightMin, conditions]);
  if (unknown) return <JudgementCard judgement={ownLimitsUnknown("so far")} compact />;
  if (rows.length === 0) return null;
  const told = rows.filter(({ due, verdict }) => gradeOf(due, verdict) !== "within limits");
  return (
    <View className="gap-2" testID="pilot-due">
      <Heading className="mt-2 text-lg">Pilot: in date for this flight?</Heading>
      <View className="gap-1.5 rounded-xl bg-stone px-3 py-2">
        {told.map((row) => {
          const grade = gradeOf(row.due, row.verdict);
          return (
            <View key={row.item.id} className="flex-row gap-2">
              <View className="pt-0.5">
                <GradeMark grade={grade} size={20} />
              </View>
              <View className="shrink">
                <Text className={`font-strong ${grade === "stop" ? "text-clay" : ""}`}>
                  {`${isSoon(row.verdict) ? "Due soon" : GRADE_WORD[grade]}: ${row.item.name}`}
                </Text>
                <Text className="text-sm">{personSentence(row)}</Text>
              </View>
            </View>
          );
        })}
        {rows.length > told.length && (
          <Text className="text-sm text-voice">
            {`${rows.length - told.length} items in date until the end of this flight.`}
          </Text>
        )}
        <Text className="text-sm text-voice">
          Only you see this here. It is not saved in the aircraft's record.
        </Text>
      </View>
    </View>
  );
}
