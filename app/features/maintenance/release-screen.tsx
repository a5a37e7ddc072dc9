import { can, newId } from "@cravix/contract/client";
import { isPilotsWork, releaseFaults } from "@cravix/core/airworthiness/life/release";
import type { EventData } from "@cravix/core/checklist/stream/events";
import { useMemo, useReducer, useState } from "react";
import { View } from "react-native";
import { type EventInput, recordAll } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { FormChoices, FormDate, FormRootFault, FormText, FormToggle, Pair } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { type EntryForm, useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { type Airworthiness, dueRows, NoAirworthinessRecord, useAirworthiness } from "../due";
import { PastReleases } from "./past-releases";
import { missingEntries, newRelease, type ReleaseDraft, releaseOf } from "./release-draft";
import { releasePhase } from "./release-phase";
import { ReleaseSigned } from "./release-signed";
import { ReleaseMeters, ReleaseWorks } from "./release-works";

/** Releases work to service: work done, due items completed, discrepancies closed, certificate. */
export function ReleaseScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Gate aircraft={aircraft} />}</AircraftFrame>
  );
}

function Gate({ aircraft }: { aircraft: KnownAircraft }) {
  const papers = useAirworthiness(aircraft.bundle);
  if (!papers) return <NoAirworthinessRecord registration={aircraft.bundle.aircraft.registration} />;
  return <Release aircraft={aircraft} papers={papers} />;
}

const Release = withFormLibrary(ReleaseLoaded);

function ReleaseLoaded({ aircraft, papers }: { aircraft: KnownAircraft; papers: Airworthiness }) {
  const { bundle, crew, crewId } = aircraft;
  const { registration } = bundle.aircraft;
  const { record, totals, released } = papers.onFile;
  const dispatch = useAppDispatch();
  const me = crew.find((member) => member.id === crewId);
  const full = can(me, "work.release");
  const preventive = !full && bundle.rules?.preventive !== undefined && can(me, "work.release-preventive");
  const [phase, step] = useReducer(releasePhase, { name: "entering" });
  const [unique] = useState(() => newId(Date.now()).slice(-6));
  const first = useMemo(() => newRelease(papers), [papers]);
  const form = useEntryForm<ReleaseDraft, "work.released">({
    type: "work.released",
    first,
    keep: `release draft:${registration}`,
    read: (draft) => {
      const at = new Date().toISOString();
      const release = releaseOf(draft, papers, { at, preventive, unique });
      const faults = [
        ...missingEntries(draft, papers),
        ...releaseFaults(release, {
          meters: record.meters,
          totals,
          works: [...record.works, ...released],
          today: papers.today,
          signedAt: at,
          late: draft.late,
          built: bundle.aircraft.year,
        }),
      ];
      return faults.length > 0
        ? {
            faults: faults.map(({ at: path, words, confirm }) => ({
              at: fieldOfFault(path),
              words,
              kind: confirm,
            })),
          }
        : { data: release };
    },
    onEntered: (data) => {
      const firstId = newId(Date.now());
      const closing = data.closes.map(
        (discrepancyId): EventInput => ({
          type: "discrepancy.closed",
          data: { discrepancyId, how: data.done.slice(0, MAX_HOW), release: firstId },
        }),
      );
      dispatch(
        recordAll(firstId, [{ type: "work.released", data }, ...closing], { stream: "aircraft", firstId }),
      );
      step({ type: "signed", id: firstId, date: data.date });
    },
  });
  if (phase.name !== "entering")
    return <ReleaseSigned registration={registration} phase={phase} step={step} />;
  if (!full && !preventive)
    return (
      <Screen back={`/aircraft/${registration}`}>
        <PageHead title={`${registration} release`}>Release to service</PageHead>
        <Text className="mt-2">
          Only a mechanic can release work. Pilots can release preventive maintenance where the rules on file
          allow it.
        </Text>
      </Screen>
    );
  return (
    <Screen
      back={`/aircraft/${registration}`}
      actions={
        <>
          {form.fault !== undefined && (
            <Text role="alert" className="text-deck-ink">
              {form.fault}
            </Text>
          )}
          <Button
            tone="primary"
            className="min-h-16"
            textClassName="text-xl"
            testID="primary"
            onPress={form.submit}
          >
            {`Sign: ${me?.name ?? ""}`}
          </Button>
        </>
      }
    >
      <PageHead title={`${registration} release`}>{`${registration}: release to service`}</PageHead>
      <Text className="mt-1 text-sm text-voice">
        Signing completes the selected due items and signs off the selected discrepancies.
      </Text>
      {preventive && (
        <Text className="mt-1">
          You can release only preventive maintenance, on an aircraft that you own or operate, where the rules
          allow it. A mechanic releases everything else.
        </Text>
      )}
      <RestoredDraft restored={form.restored} startAgain={form.startAgain} />
      <ReleaseFields aircraft={aircraft} papers={papers} form={form} full={full} />
    </Screen>
  );
}

/** As in the contract. */
const MAX_HOW = 2000;

/** Field of the form for a fault: the certificate is entered in two. */
const fieldOfFault = (at: string) => (at === "certificate" ? "kind" : at);

function ReleaseFields({
  aircraft,
  papers,
  form: { control, formState },
  full,
}: {
  aircraft: KnownAircraft;
  papers: Airworthiness;
  form: EntryForm<ReleaseDraft, EventData["work.released"]>;
  full: boolean;
}) {
  const wide = useWide();
  const { open } = aircraft;
  const rows = dueRows(papers, { at: new Date().toISOString(), minutes: 60, conditions: [] });
  const late = useWatch({ control, name: "late" });
  const asksIfLate = late || (formState.errors.date?.type as string | undefined) === "late entry";
  return (
    <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-3"}>
      <View className="gap-3 lg:flex-1" style={wide ? { flex: 1 } : undefined}>
        <FormText
          control={control}
          name="done"
          label="Work done, and on which part"
          maxLength={4000}
          multiline
        />
        <FormText
          control={control}
          name="reference"
          label="Reference"
          maxLength={400}
          placeholder="manual, directive, drawing"
        />
        <FormDate control={control} name="date" label="Date of the work" max={papers.today} />
        {asksIfLate && (
          <FormToggle
            control={control}
            name="late"
            className="items-start self-start px-4"
            textClassName="text-base text-left"
          >
            The date is right: this is a late entry
          </FormToggle>
        )}
        <ReleaseMeters control={control} papers={papers} />
        <Pair>
          <FormText control={control} name="kind" label="Certificate type" maxLength={80} />
          <FormText control={control} name="number" label="Certificate number" maxLength={80} />
        </Pair>
        {wide && <PastReleases aircraft={aircraft} />}
      </View>
      <View className="gap-3" style={wide ? { flex: 1 } : undefined}>
        <ReleaseWorks
          control={control}
          papers={papers}
          rows={rows.filter(({ item }) => full || isPilotsWork(item))}
        />
        {open.length > 0 && (
          <>
            <Heading className="text-lg">Discrepancies signed off</Heading>
            <FormChoices
              control={control}
              name="closes"
              options={open.map(({ id, text }) => ({ id, words: text }))}
            />
          </>
        )}
        <FormText
          control={control}
          name="leak"
          label="Re-inspect after this many hours (if required)"
          maxLength={6}
          placeholder="none"
        />
        {formState.errors.works?.message && <Alert>{formState.errors.works.message}</Alert>}
        <FormRootFault control={control} />
        {!wide && <PastReleases aircraft={aircraft} />}
      </View>
    </View>
  );
}
