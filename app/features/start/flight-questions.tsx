import { kindsToAsk } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { deferralForFlight } from "@cravix/core/airworthiness/deferral-today";
import { AIRSPACE_KINDS, FLIGHT_USES, type FlightUse } from "@cravix/core/airworthiness/due/due-item";
import { View } from "react-native";
import type { Change } from "../../store/state/apply-patch";
import type { Planned } from "../../store/state/planned-slice";
import { Choice } from "../../ui/input/choice";
import type { KnownAircraft } from "../aircraft-frame";
import { type Airworthiness, flightQuestion } from "../due";

const YES_NO = ["Yes", "No"] as const;
const answered = (told: boolean | undefined) => (told === undefined ? undefined : told ? "Yes" : "No");

/** What decides a due item or a deferral of this aircraft and only the pilot can tell. Nothing else is asked. */
export function FlightQuestions({
  aircraft: { bundle, plan, open },
  papers,
  change,
}: {
  aircraft: KnownAircraft;
  papers: Airworthiness;
  change: (part: Change<Planned>) => void;
}) {
  const deferrals = open.flatMap(({ deferral }) =>
    deferral
      ? [
          deferralForFlight(deferral, plan.conditions, {
            rules: bundle.rules?.deferral,
            list: bundle.equipment ?? undefined,
            built: String(bundle.aircraft.year),
          }),
        ]
      : [],
  );
  const asked = kindsToAsk(
    papers.pinned.dues.map(({ item }) => item),
    deferrals,
    plan.conditions,
  );
  if (asked.length === 0) return null;
  return (
    <View className="gap-2" testID="flight-questions">
      {asked.some((kind) => (FLIGHT_USES as readonly string[]).includes(kind)) && (
        <Choice
          title="What is this flight for?"
          options={FLIGHT_USES}
          value={plan.use}
          onChange={(use: FlightUse) => change({ use })}
        />
      )}
      {AIRSPACE_KINDS.filter((kind) => asked.includes(kind)).map((kind) => (
        <Choice
          key={kind}
          title={flightQuestion(kind)}
          options={YES_NO}
          value={answered(plan.airspace?.[kind])}
          onChange={(answer) => change({ airspace: { ...plan.airspace, [kind]: answer === "Yes" } })}
        />
      ))}
      {asked.includes("day") && (
        <Choice
          title={flightQuestion("day")}
          options={YES_NO}
          value={answered(plan.dayAndNight)}
          onChange={(answer) => change({ dayAndNight: answer === "Yes" })}
        />
      )}
      {asked.includes("every seat occupied") && (
        <Choice
          title={flightQuestion("every seat occupied")}
          options={YES_NO}
          value={answered(plan.fullSeats)}
          onChange={(answer) => change({ fullSeats: answer === "Yes" })}
        />
      )}
    </View>
  );
}
