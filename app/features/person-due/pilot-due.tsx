import { toldFlight } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { isSoon } from "@cravix/core/airworthiness/due/due-judgement";
import { judgePerson, personSentence } from "@cravix/core/airworthiness/people/person-due";
import { ownLimitsUnknown } from "@cravix/core/departure/judge-departure";
import { useMemo } from "react";
import { View } from "react-native";
import { flightOfPerson } from "../../store/preflight/local-pilot";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { JudgementCard } from "../../ui/judgement-card";
import { Heading, Text } from "../../ui/text";
import type { KnownAircraft } from "../aircraft-frame";
import { gradeOf } from "../due";
import { usePersonDue } from "./use-person-due";

/** Whether the pilot is in date for the planned flight. Private: the preflight's record holds only the grade. */
export function PilotDue({ aircraft: { bundle, plan, crewId } }: { aircraft: KnownAircraft }) {
  const { record, unknown } = usePersonDue(crewId ?? undefined);
  const { flightMin, conditions, onDay, use, airspace, fullSeats, dayAndNight } = plan;
  const rows = useMemo(() => {
    if (!record) return [];
    return judgePerson(
      record,
      flightOfPerson(bundle, {
        conditions,
        minutes: flightMin,
        onDay,
        ...toldFlight({ use, airspace, fullSeats, dayAndNight }),
      }),
    ).filter(({ verdict }) => verdict.state !== "not for this flight");
  }, [record, bundle, flightMin, conditions, onDay, use, airspace, fullSeats, dayAndNight]);
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
          Only you see this here. The record of the preflight says at most that you are not in date.
        </Text>
      </View>
    </View>
  );
}
