import {
  addDays,
  GRADES,
  type Grade,
  judgePapers,
  localDate,
  pinPapers,
  spokenDate,
  usualOf,
  visitItem,
} from "@cravix/core";
import { type Href, router } from "expo-router";
import { useEffect, useMemo, useState } from "react";
import { View } from "react-native";
import { planInWorker } from "../../device/workers/plan-work";
import type { PlannedAircraft } from "../../device/workers/visits.worker";
import { useAppDispatch, useAppSelector } from "../../store/hooks";
import { serverApi } from "../../store/server/server-api";
import { fetchOthers, useFleet } from "../../store/server/server-state";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { ListRow } from "../../ui/input/list-row";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { useStandings } from "../aircraft/use-standings";
import { LogParts } from "../shell/log-parts";
import { PlaceFrame } from "../shell/place-frame";

/** So far ahead visits are planned, days. */
const HORIZON = 365;

interface Task {
  id: string;
  registration: string;
  grade: Grade;
  text: string;
}

/** What is open and due on the whole group, by urgency, and the fewest visits to the workshop that keep it in date. */
export function WorkshopScreen() {
  const wide = useWide();
  const dispatch = useAppDispatch();
  const fleet = useFleet();
  const ready = useAppSelector((state) => state.session.ready);
  const knownOf = useStandings();
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
          <Heading className="text-lg">{`Open and due: ${tasks.length}`}</Heading>
          {!fleet && <Text className="text-voice">Fetching the group …</Text>}
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
            <Text className="text-voice">Nothing is open, and nothing due soon.</Text>
          )}
          {!wide && <Visits />}
        </>
      }
      detail={<Visits />}
    />
  );
}

/** The fewest visits within a year, aircraft by aircraft. */
function Visits() {
  const bundles = useAppSelector((state) => state.server);
  const fleet = useFleet();
  const today = useMemo(() => localDate(new Date().toISOString()), []);
  const asked = useMemo(() => {
    const names = new Map<string, string>();
    const aircraft = (fleet?.aircraft ?? []).flatMap(({ registration }) => {
      const papers = serverApi.endpoints.bundle.select(registration)({ server: bundles } as never).data
        ?.papers;
      if (!papers) return [];
      const usual = usualOf(papers.days, papers.record.meters, today);
      const judged = judgePapers(pinPapers(papers.record, papers), {
        at: new Date().toISOString(),
        minutes: 0,
        landings: 0,
        conditions: ["instrument"],
      });
      const items = judged.flatMap(({ item, verdict }) => {
        const one = visitItem(item, verdict.limits, usual, today);
        if (one) names.set(`${registration} ${item.id}`, item.name);
        return one ? [one] : [];
      });
      return items.length > 0 ? [{ registration, items }] : [];
    });
    return { aircraft, names };
  }, [fleet, bundles, today]);
  const key = JSON.stringify(asked.aircraft);
  const [plan, setPlan] = useState<PlannedAircraft[]>();
  const [trouble, setTrouble] = useState("");
  useEffect(() => {
    let current = true;
    const aircraft = JSON.parse(key) as typeof asked.aircraft;
    if (aircraft.length === 0) return;
    planInWorker({
      aircraft,
      horizon: HORIZON,
      weekday: new Date(`${today}T12:00:00Z`).getUTCDay(),
      blocked: [],
    }).then(
      (made) => current && setPlan(made),
      (error: Error) => current && setTrouble(error.message),
    );
    return () => {
      current = false;
    };
  }, [key, today]);
  const visits = (plan ?? [])
    .flatMap(({ registration, visits: own }) => own.map((visit) => ({ registration, ...visit })))
    .sort((a, b) => a.day - b.day);
  return (
    <View className="mt-2 gap-2" testID="visits">
      <Heading className="text-lg">{plan ? `Visits within a year: ${visits.length}` : "Visits"}</Heading>
      {trouble !== "" && <Text role="alert">{trouble}</Text>}
      {!plan && trouble === "" && <Text className="text-voice">Working out the fewest visits …</Text>}
      {visits.map(({ registration, day, items }) => (
        <View key={`${registration}${day}`} className="rounded-xl bg-stone px-3 py-2">
          <Text className="font-strong">{`${spokenDate(addDays(today, day))}: ${registration}`}</Text>
          <Text>{items.map((id) => asked.names.get(`${registration} ${id}`) ?? id).join(", ")}</Text>
        </View>
      ))}
      {(plan ?? []).flatMap(({ registration, late }) =>
        late.map(({ item, due }) => (
          <Text key={`${registration}${item}`} role="alert" className="font-mid text-clay">
            {`${registration}: ${asked.names.get(`${registration} ${item}`) ?? item} is due on ${spokenDate(addDays(today, due))}; the workshop is not open before that.`}
          </Text>
        )),
      )}
      <Text className="text-sm text-voice">
        {plan?.every(({ exact }) => exact)
          ? "Every plan was tried: the fewest visits, and the least life thrown away. "
          : "The fewest visits; of what is done early, the best that was found. "}
        Nothing goes overdue, hours by the earliest day of each forecast, on weekdays. A plan, no appointment.
      </Text>
    </View>
  );
}
