import { newId } from "@cravix/contract/client";
import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import type { EventData } from "@cravix/core/checklist/stream/events";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { useMemo } from "react";
import type { Control } from "react-hook-form";
import { View } from "react-native";
import { recordAll } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { FormDate, FormRootFault, FormSteps, FormText, FormToggle, Pair } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import type { KnownAircraft } from "../aircraft-frame";
import {
  draftFrom,
  draftOf,
  type FlightDraft,
  faultsOf,
  fieldOf,
  fullStopsOf,
  lineOfDraft,
  withRemarks,
} from "./flight-draft";

type FlightFields = FlightDraft & { why: string };

interface FlightFormProps {
  aircraft: KnownAircraft;
  papers: AirworthinessOnFile;
  lines: readonly TechnicalLogEntry[];
  /** Entry to correct; absent: log a new one. */
  correcting?: TechnicalLogEntry | undefined;
  onLogged: (words: string) => void;
  onCancel: () => void;
}

/** Form for the next entry: known values are filled in, missing ones asked, likely errors queried once. */
export const FlightForm = withFormLibrary(FlightFormLoaded);

function FlightFormLoaded({ aircraft, papers, lines, correcting, onLogged, onCancel }: FlightFormProps) {
  const { bundle, crewId } = aircraft;
  const { registration } = bundle.aircraft;
  const { meters } = papers.record;
  const wide = useWide();
  const dispatch = useAppDispatch();
  const pilot = correcting?.pilot ?? crewId ?? "";
  const accepted = bundle.recentPreflights.find(({ decision }) => decision === "fly")?.signedAt;
  const since = papers.lastLine?.on;
  const first = useMemo(
    (): FlightFields => ({
      ...(correcting
        ? draftFrom(correcting)
        : draftOf(papers, {
            base: bundle.airfield?.name ?? bundle.aircraft.base,
            pilot,
            now: new Date().toISOString(),
            // An acceptance that already has an entry is not proposed again.
            ...(accepted && (!since || accepted > since) && { acceptedAt: accepted }),
          })),
      why: "",
    }),
    [papers, bundle, pilot, accepted, since, correcting],
  );
  const faultsNow = (line: Omit<TechnicalLogEntry, "id">) =>
    faultsOf(line, {
      papers,
      others: lines,
      ...(correcting && { correcting: correcting.id }),
      now: new Date().toISOString(),
      built: bundle.aircraft.year,
    });
  const form = useEntryForm<FlightFields, "flight.logged">({
    type: "flight.logged",
    first,
    keep: `flight draft:${registration}:${correcting?.id ?? "new"}`,
    read: ({ why: _, ...draft }) => {
      const { line, faults } = lineOfDraft(draft, {
        registration,
        pilot,
        meters,
        ...(correcting?.crew && { crew: correcting.crew }),
      });
      const refused = line ? faultsNow(line).filter(({ weight }) => weight === "refused") : faults;
      return line && refused.length === 0
        ? { data: line }
        : { faults: refused.map(({ at, words }) => ({ at: fieldOf(at), words })) };
    },
    ask: (line) => faultsNow(line).map(({ words }) => words),
    onEntered: (line, despite) => {
      const data = withRemarks(line, despite);
      if (correcting) correct({ line: data });
      else {
        const firstId = newId(Date.now());
        dispatch(recordAll(firstId, [{ type: "flight.logged", data }], { stream: "flight", firstId }));
      }
      onLogged(`${correcting ? "Corrected" : "Logged"}: ${line.from} to ${line.to}.`);
    },
  });
  const { control, questions } = form;
  const why = useWatch({ control, name: "why" }).trim();
  const correct = (more: { line?: EventData["flight.logged"] }) => {
    if (!correcting) return;
    const data = { registration, of: correcting.id, why, ...more };
    dispatch(recordAll(correcting.id, [{ type: "flight.corrected", data }], { stream: "flight" }));
  };
  const strike = () => {
    if (!correcting || why === "") return;
    correct({});
    form.startAgain();
    onLogged("Struck out. The entry stays on record.");
  };
  const cancel = () => {
    form.startAgain();
    onCancel();
  };
  const body = (
    <View className="gap-3">
      <Text className="text-sm text-voice">The next flight starts from the last meter reading.</Text>
      <RestoredDraft restored={form.restored} startAgain={form.startAgain} />
      <Pair>
        <FormText control={control} name="from" label="From" maxLength={80} />
        <FormText control={control} name="to" label="To" maxLength={80} />
      </Pair>
      <FormDate control={control} name="day" label="Date" />
      <Pair>
        <FormText control={control} name="off" label="Off blocks" maxLength={5} placeholder="09:30" />
        <FormText control={control} name="on" label="On blocks" maxLength={5} placeholder="10:45" />
      </Pair>
      <FlightMeters control={control} meters={meters} />
      <FormText control={control} name="remarks" label="Remarks" maxLength={2000} multiline />
      {correcting && (
        <>
          <FormText
            control={control}
            name="why"
            label="Reason for the correction"
            maxLength={400}
            multiline
          />
          <Button
            className="self-start px-5"
            textClassName="text-base"
            disabled={why === ""}
            onPress={strike}
            testID="withdraw"
          >
            Flight did not take place: strike out
          </Button>
        </>
      )}
      <FormRootFault control={control} />
      {questions.map((words) => (
        <Alert key={words} frame="box">
          {words}
        </Alert>
      ))}
    </View>
  );
  const button = (
    <Button
      tone="primary"
      className="min-h-16"
      textClassName="text-xl"
      testID="log-flight"
      disabled={correcting !== undefined && why === ""}
      onPress={form.submit}
    >
      {questions.length > 0
        ? "Correct as entered: log it"
        : correcting
          ? "Save the correction"
          : "Log this flight"}
    </Button>
  );
  if (wide)
    return (
      <View className="gap-3">
        <Heading className="text-lg">{correcting ? "Correct this flight" : "New flight"}</Heading>
        {body}
        {button}
      </View>
    );
  return (
    <Screen
      actions={
        <View className="flex-row gap-3">
          <Button tone="deck" className="min-h-16 flex-1" textClassName="text-base" onPress={cancel}>
            Cancel
          </Button>
          <View className="flex-[1.7]">{button}</View>
        </View>
      }
    >
      <PageHead title={`${registration} log a flight`}>
        {`${registration}: ${correcting ? "correct a flight" : "log a flight"}`}
      </PageHead>
      <View className="mt-2">{body}</View>
    </Screen>
  );
}

/** Meters out and in, counters, and landings at night. */
function FlightMeters({
  control,
  meters,
}: {
  control: Control<FlightFields, unknown, EventData["flight.logged"]>;
  meters: readonly RecordMeter[];
}) {
  const [ground, landings, full] = useWatch({ control, name: ["ground", "nightLandings", "nightFullStops"] });
  return (
    <>
      {meters
        .filter(({ kind }) => !isCounted(kind))
        .map(({ id, name }) => (
          <Pair key={id}>
            <FormText control={control} name="out" entry={id} label={`${name}, out`} maxLength={9} />
            <FormText control={control} name="in" entry={id} label={`${name}, in`} maxLength={9} />
          </Pair>
        ))}
      <FormToggle control={control} name="ground" testID="ground-run">
        Ground run, no flight
      </FormToggle>
      {!ground &&
        meters
          .filter(({ kind }) => isCounted(kind))
          .map(({ id, name }) => (
            <FormSteps
              key={id}
              control={control}
              name="counts"
              entry={id}
              label={name}
              step={1}
              unit={name.toLowerCase()}
              testID={`count-${id}`}
            />
          ))}
      {!ground && (
        <FormSteps
          control={control}
          name="nightLandings"
          label="Landings at night"
          step={1}
          unit="landings at night"
        />
      )}
      {!ground && landings > 0 && (
        <FormSteps
          control={control}
          name="nightFullStops"
          label="Of these, to a full stop"
          step={1}
          unit="full stops at night"
          max={landings}
          unset={fullStopsOf({
            nightLandings: landings,
            ...(full !== undefined && { nightFullStops: full }),
          })}
        />
      )}
    </>
  );
}
