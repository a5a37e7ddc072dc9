import { can, rolesThatCan } from "@cravix/contract/client";
import { addDays, spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import { handPlanCostText } from "@cravix/core/airworthiness/plan/workshop-plan";
import { useState } from "react";
import { View } from "react-native";
import { api } from "../../device/api";
import { saveBlob } from "../../device/platform/pick-file";
import { recordStandalone } from "../../store/preflight/record";
import { useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { dayText } from "../../ui/day-and-time";
import { useFormsSoon } from "../../ui/form/form-library";
import { Button } from "../../ui/input/button";
import { Heading, Text } from "../../ui/text";
import { ClosedDays } from "./closed-days";
import { type AircraftVisits, useVisits, type Visits } from "./use-visits";
import { VisitAxis } from "./visit-axis";

/** Workshop visits within a year, one axis per aircraft; can be moved by hand, with the resulting cost. */
export function VisitsPlan() {
  useFormsSoon();
  const plan = useVisits();
  const { aircraft, today, kept, planning, problem } = plan;
  const count = aircraft.reduce((sum, { visits }) => sum + visits.length, 0);
  const crew = useCrew();
  return (
    <View className="mt-2 gap-3" testID="visits">
      <Heading className="text-lg">
        {planning ? "Workshop visits" : `Workshop visits in the next year: ${count}`}
      </Heading>
      {problem !== "" && <Text role="alert">{problem}</Text>}
      {planning && <Text className="text-voice">Working out the fewest visits …</Text>}
      {kept && (
        <Text className="text-sm text-voice" testID="published-plan">
          {`Published by ${crew.find(({ id }) => id === kept.crewId)?.name ?? kept.crewId}, ${dayText(kept.at)}.`}
        </Text>
      )}
      {aircraft.length > 0 && (
        <Text className="text-sm text-voice">
          Tap a visit to see its work. Drag it, or use the arrow keys, to move it.
        </Text>
      )}
      {aircraft.map((one) => (
        <OneAircraft key={one.registration} one={one} plan={plan} />
      ))}
      {!planning && <ClosedDays plan={plan} />}
      {!planning && <PutDown plan={plan} />}
      <Text className="text-sm text-voice">
        {aircraft.every(({ best }) => best.exact)
          ? "All plans compared: fewest visits, and least remaining life lost. "
          : "Fewest visits; the best plan found for early work. "}
        {`Nothing becomes overdue. Hours use the earliest forecast day; weekdays only. Plan made on ${spokenDate(today)}; no appointments are booked.`}
      </Text>
    </View>
  );
}

function OneAircraft({ one, plan }: { one: AircraftVisits; plan: Visits }) {
  const { registration, days, visits, byHand, cost, best } = one;
  const { today, nameOf, setDays, open } = plan;
  const [chosen, setChosen] = useState<number>();
  const late = new Set(
    (cost?.cost.late ?? []).flatMap(({ done }) => (done === undefined ? [] : [days.indexOf(done)])),
  );
  const day = chosen === undefined ? undefined : days[chosen];
  const visit = visits.find((v) => v.day === day);
  const move = (at: number, to: number) => {
    const next = days.map((before, i) => (i === at ? to : before));
    setDays(registration, next);
    setChosen([...new Set(next)].sort((a, b) => a - b).indexOf(to));
  };
  const shift = (by: number) =>
    chosen !== undefined && day !== undefined && move(chosen, Math.max(0, day + by));
  return (
    <View className="gap-1 border-b-2 border-stone pb-3" testID={`visits-${registration}`}>
      <View className="flex-row flex-wrap items-center justify-between gap-2">
        <Text className="font-strong">
          {`${registration}: ${days.length} ${days.length === 1 ? "visit" : "visits"}${byHand ? ", moved by hand" : ""}`}
        </Text>
        {byHand && (
          <Button
            className="px-4"
            textClassName="text-sm"
            onPress={() => {
              setChosen(undefined);
              setDays(registration, undefined);
            }}
          >
            Restore the best plan
          </Button>
        )}
      </View>
      <VisitAxis
        registration={registration}
        today={today}
        days={days}
        late={late}
        open={open}
        chosen={chosen}
        onChoose={(at) => setChosen(at)}
        onMove={move}
      />
      {cost &&
        handPlanCostText(cost, (item) => nameOf(registration, item), today).map(({ words, bad }) => (
          <Text key={words} role={bad ? "alert" : undefined} className={bad ? "font-mid text-clay" : ""}>
            {words}
          </Text>
        ))}
      {!byHand &&
        best.late.map(({ item, due }) => (
          <Text key={item} role="alert" className="font-mid text-clay">
            {`${nameOf(registration, item)} is due on ${spokenDate(addDays(today, due))}, before the workshop is next open. Arrange another date or workshop.`}
          </Text>
        ))}
      {visit ? (
        <View className="gap-2 rounded-xl bg-stone px-3 py-2" testID="visit">
          <Text className="font-strong">{spokenDate(addDays(today, visit.day))}</Text>
          <Text>
            {visit.items.length > 0
              ? visit.items.map((id) => nameOf(registration, id)).join(", ")
              : "Nothing is due at this visit."}
          </Text>
          <View className="flex-row flex-wrap gap-2">
            {(
              [
                ["−1 week", -7],
                ["−1 day", -1],
                ["+1 day", 1],
                ["+1 week", 7],
              ] as const
            ).map(([words, by]) => (
              <Button key={words} className="px-4" textClassName="text-sm" onPress={() => shift(by)}>
                {words}
              </Button>
            ))}
            <Button
              className="px-4"
              textClassName="text-sm"
              onPress={() => {
                setDays(
                  registration,
                  days.filter((_, i) => i !== chosen),
                );
                setChosen(undefined);
              }}
            >
              Remove this visit
            </Button>
          </View>
        </View>
      ) : (
        visits[0] && (
          <Text className="text-sm text-voice">
            {`First visit ${spokenDate(addDays(today, visits[0].day))}: ${visits[0].items.map((id) => nameOf(registration, id)).join(", ")}`}
          </Text>
        )
      )}
    </View>
  );
}

/** Publishes the plan to the group, and exports it. */
function PutDown({ plan }: { plan: Visits }) {
  const dispatch = useAppDispatch();
  const crew = useCrew();
  const crewId = useAppSelector((state) => state.session.crewId);
  const role = crew.find((member) => member.id === crewId)?.role;
  const may = can(role && { role }, "workshop.plan");
  const [problem, setProblem] = useState("");
  const [done, setDone] = useState(false);
  const hand = (name: string, make: () => Promise<Blob>) => {
    setProblem("");
    make().then(
      (blob) => saveBlob(name, blob),
      () => setProblem("No network: the server makes this file. Try again when you are online."),
    );
  };
  return (
    <View className="gap-2">
      {may && (
        <Text className="text-sm text-voice">Publishing shows this plan to everyone in the group.</Text>
      )}
      {may ? (
        <Button
          tone="primary"
          className="self-start px-6"
          testID="publish-plan"
          onPress={() => {
            dispatch(recordStandalone("workshop", "workshop.planned", plan.asPlan()));
            setDone(true);
          }}
        >
          {plan.kept ? "Publish the changed plan" : "Publish this plan"}
        </Button>
      ) : (
        <Text className="text-sm text-voice">{`Only ${rolesThatCan("workshop.plan")} can publish the plan for everyone. Changes you make here stay on this device.`}</Text>
      )}
      {done && (
        <Text role="status">
          {plan.changed
            ? "Saved on this device. It is sent to the others when you are online."
            : "Plan published."}
        </Text>
      )}
      <View className="flex-row flex-wrap gap-2">
        <Button
          className="px-5"
          textClassName="text-base"
          onPress={() => hand("workshop-plan.ics", api.planIcs)}
        >
          Export to calendar (iCalendar)
        </Button>
        <Button
          className="px-5"
          textClassName="text-base"
          onPress={() => hand("workshop-plan.csv", api.planCsv)}
        >
          Export CSV
        </Button>
      </View>
      {problem !== "" && <Alert>{problem}</Alert>}
    </View>
  );
}
