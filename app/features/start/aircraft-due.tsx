import { idMsecs } from "@cravix/contract/client";
import {
  judgeAirworthiness,
  LAUNCH_WAYS,
  type LaunchWay,
  toldFlight,
} from "@cravix/core/airworthiness/airworthiness-snapshot";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { useEffect, useMemo, useRef } from "react";
import { View } from "react-native";
import type { Change } from "../../store/state/apply-patch";
import type { Planned } from "../../store/state/planned-slice";
import { Choice } from "../../ui/input/choice";
import { DateField } from "../../ui/input/date-field";
import { Stepper } from "../../ui/input/stepper";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import type { KnownAircraft } from "../aircraft-frame";
import { DueJudgements, useAirworthiness } from "../due";
import { FlightQuestions } from "./flight-questions";

/** Last release signed after the last flight: the next preflight is one after maintenance. */
export function releasedSinceFlown({ released, lastLine }: AirworthinessOnFile): string | undefined {
  const last = released
    .map(({ release }) => release ?? "")
    .sort()
    .at(-1);
  if (!last) return undefined;
  return !lastLine || idMsecs(last) > Date.parse(lastLine.on) ? last : undefined;
}

/** Launch method of a glider: as chosen, else as last used; undefined if launches are not counted. */
export function launchOf(
  { record, lastLine }: Pick<AirworthinessOnFile, "record" | "lastLine">,
  told: LaunchWay | undefined,
): LaunchWay | undefined {
  const winch = record.meters.find(({ kind }) => kind === "winch launches");
  const tow = record.meters.find(({ kind }) => kind === "aerotows");
  if (!winch || !tow) return undefined;
  return told ?? ((lastLine?.counts[tow.id] ?? 0) > 0 ? "aerotow" : "winch");
}

/** Whether the aircraft is in date for the planned flight; offers a flight to the workshop if a limit allows one. */
export function AircraftDue({
  aircraft,
  change,
}: {
  aircraft: KnownAircraft;
  change: (part: Change<Planned>) => void;
}) {
  const { bundle, plan } = aircraft;
  const papers = useAirworthiness(bundle);
  const { flightMin, landings = 1, conditions, purpose, use, airspace, fullSeats, dayAndNight, onDay } = plan;
  // Default: the last launch method.
  const launch = papers && launchOf(papers.onFile, plan.launch);
  const asked = useMemo(
    () => ({
      // At noon of another day.
      at: onDay === undefined ? new Date().toISOString() : `${onDay}T12:00:00.000Z`,
      minutes: flightMin,
      landings,
      conditions,
      ...(launch && { launch }),
      ...(purpose && { purpose }),
      ...toldFlight({ use, airspace, fullSeats, dayAndNight }),
    }),
    [flightMin, landings, conditions, launch, purpose, use, airspace, fullSeats, dayAndNight, onDay],
  );
  const mayFerry = useMemo(
    () =>
      papers !== undefined &&
      judgeAirworthiness(papers.pinned, { ...asked, purpose: "to the place of the work" }).some(
        ({ verdict }) => verdict.state === "under a tolerance",
      ),
    [papers, asked],
  );
  const worked = papers && releasedSinceFlown(papers.onFile);
  const offered = !bundle.type.notOffered?.some(({ condition }) => condition === "after maintenance");
  useEffect(() => {
    if (launch && plan.launch === undefined) change({ launch });
  }, [launch, plan.launch, change]);
  const told = useRef<string>(undefined);
  useEffect(() => {
    // Proposed once per release; the user can undo it.
    if (!worked || !offered || told.current === worked) return;
    told.current = worked;
    if (!conditions.includes("after maintenance"))
      change({ conditions: [...conditions.filter((c) => c !== "turnaround"), "after maintenance"] });
  }, [worked, offered, conditions, change]);
  if (!papers) return null;
  const counts = papers.onFile.record.meters.some(({ kind }) => isCounted(kind));
  return (
    <View className="gap-2">
      {counts && (
        <>
          <Heading className="mt-2 text-lg">How many landings?</Heading>
          <Stepper
            text={String(landings)}
            step={1}
            unit="landings"
            testID="landings"
            onStep={(by) => change({ landings: Math.min(99, Math.max(1, landings + by)) })}
          />
        </>
      )}
      {launch && (
        <Choice
          title="Launch method"
          options={LAUNCH_WAYS}
          value={launch}
          words={(way) => (way === "winch" ? "Winch launch" : "Aerotow")}
          onChange={(way) => change({ launch: way })}
        />
      )}
      <FlightQuestions aircraft={aircraft} papers={papers} change={change} />
      <Heading className="mt-2 text-lg">Aircraft: in date for this flight?</Heading>
      <DateField
        label="Day of the flight, if not today"
        value={onDay ?? ""}
        min={papers.today}
        onChange={(day) => change({ onDay: day === "" || day <= papers.today ? undefined : day })}
      />
      <DueJudgements papers={papers.pinned} asked={asked} />
      {(mayFerry || purpose) && (
        <View className="gap-1">
          <Toggle
            on={purpose === "to the place of the work"}
            className="self-start px-4"
            testID="ferry"
            onPress={() => change({ purpose: purpose ? undefined : "to the place of the work" })}
          >
            Ferry flight to maintenance
          </Toggle>
          <Text className="text-sm text-voice">
            A limit may be exceeded only on such a flight. The excess is deducted from the next interval.
          </Text>
        </View>
      )}
    </View>
  );
}
