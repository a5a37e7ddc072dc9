import { GRADES, type Grade } from "@cravix/core/judgement/judgement";
import { type Href, router } from "expo-router";
import { useEffect, useMemo } from "react";
import { View } from "react-native";
import { fetchOthers, useFleet } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { ListRow } from "../../ui/input/list-row";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { useAircraftStatuses } from "../aircraft";
import { LogParts, PlaceFrame } from "../shell";
import { VisitsPlan } from "./visits-plan";

interface Task {
  id: string;
  registration: string;
  grade: Grade;
  text: string;
}

/** Open discrepancies and due items of the whole group by urgency, and the fewest workshop visits that keep everything in date. */
export function WorkshopScreen() {
  const wide = useWide();
  const dispatch = useAppDispatch();
  const fleet = useFleet();
  const ready = useAppSelector((state) => state.session.ready);
  const knownOf = useAircraftStatuses();
  useEffect(() => {
    if (ready) void dispatch(fetchOthers());
  }, [ready, dispatch]);
  const tasks = useMemo(
    () =>
      (fleet?.aircraft ?? [])
        .flatMap((aircraft): Task[] =>
          (knownOf(aircraft).standing?.reasons ?? []).map(({ id, grade, text }) => ({
            id: `${aircraft.registration}${id}`,
            registration: aircraft.registration,
            grade,
            text,
          })),
        )
        .sort(
          (a, b) =>
            GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade) || a.registration.localeCompare(b.registration),
        ),
    [fleet, knownOf],
  );
  return (
    <PlaceFrame
      name="Log"
      parts={<LogParts here="/log/workshop" />}
      list={
        <>
          <Heading className="text-lg">{`Open and due soon: ${tasks.length}`}</Heading>
          {!fleet && <Text className="text-voice">Fetching your group's aircraft …</Text>}
          {tasks.map((task) => (
            <ListRow
              key={task.id}
              chosen={false}
              onPress={() => router.push(`/aircraft/${task.registration}/due` as Href)}
            >
              <GradeMark grade={task.grade} />
              <View className="shrink grow">
                <Text className="font-mid" numberOfLines={3}>{`${task.registration}: ${task.text}`}</Text>
                <Text className="text-sm text-voice">{GRADE_WORD[task.grade]}</Text>
              </View>
            </ListRow>
          ))}
          {fleet && tasks.length === 0 && (
            <Text className="text-voice">No open discrepancies, and nothing due soon.</Text>
          )}
          {!wide && <VisitsPlan />}
        </>
      }
      detail={<VisitsPlan />}
    />
  );
}
