import { can, newId } from "@cravix/contract/client";
import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import { isPilotsWork, type ReleaseFault, releaseFaults } from "@cravix/core/airworthiness/life/release";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/compose-list";
import type { EventData } from "@cravix/core/checklist/stream/events";
import { useState } from "react";
import { View } from "react-native";
import { api } from "../../device/api";
import { saveBlob } from "../../device/platform/pick-file";
import { type EventInput, recordAll } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { DateField } from "../../ui/input/date-field";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { type Airworthiness, dueRows, NoAirworthinessRecord, useAirworthiness } from "../due";
import { PastReleases } from "./past-releases";
import { missingEntries, newRelease, type ReleaseDraft, releaseOf } from "./release-draft";
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

function Release({ aircraft, papers }: { aircraft: KnownAircraft; papers: Airworthiness }) {
  const { bundle, crew, crewId, open } = aircraft;
  const { registration } = bundle.aircraft;
  const { record, totals, released } = papers.onFile;
  const wide = useWide();
  const dispatch = useAppDispatch();
  const me = crew.find((member) => member.id === crewId);
  const full = can(me, "work.release");
  const preventive = !full && bundle.rules?.preventive !== undefined && can(me, "work.release-preventive");
  const [draft, setDraft] = useState<ReleaseDraft>(() => newRelease(papers));
  const [faults, setFaults] = useState<ReleaseFault[]>([]);
  const [signed, setSigned] = useState("");
  const [id, setId] = useState("");
  const [problem, setProblem] = useState("");
  const set = (part: Partial<ReleaseDraft>) => setDraft({ ...draft, ...part });
  const fault = (at: string) => faults.find((one) => one.at === at)?.words;
  const rows = dueRows(papers, { at: new Date().toISOString(), minutes: 60, conditions: [] });
  const flip = (list: string[], id: string) =>
    list.includes(id) ? list.filter((one) => one !== id) : [...list, id];
  const sign = () => {
    const at = new Date().toISOString();
    const firstId = newId(Date.now());
    const release = releaseOf(draft, papers, { at, preventive, unique: firstId.slice(-6) });
    const found = [
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
    setFaults(found);
    if (found.length > 0) return;
    const closing = draft.closes.map(
      (discrepancyId): EventInput => ({
        type: "discrepancy.closed",
        data: { discrepancyId, how: release.done, release: firstId },
      }),
    );
    const data: EventData["work.released"] = release;
    dispatch(
      recordAll(firstId, [{ type: "work.released", data }, ...closing], { stream: "aircraft", firstId }),
    );
    setId(firstId);
    setSigned(
      `Released on ${spokenDate(release.date)}. The next preflight will include the after-maintenance items.`,
    );
  };
  if (signed !== "")
    return (
      <Screen back={`/aircraft/${registration}`}>
        <PageHead title={`${registration} released`}>{`${registration} is released`}</PageHead>
        <Text role="status" className="mt-2 text-lg">
          {signed}
        </Text>
        <Button
          className="mt-4 self-start px-5"
          textClassName="text-base"
          onPress={() => {
            setProblem("");
            void api.releasePdf(id).then(
              (pdf) => saveBlob(`${registration}-release.pdf`, pdf),
              () => setProblem("The server makes the PDF. Try again when this release has been sent."),
            );
          }}
        >
          Export PDF
        </Button>
        {problem !== "" && <Alert className="mt-2">{problem}</Alert>}
      </Screen>
    );
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
          {faults.length > 0 && (
            <Text role="alert" className="text-deck-ink">
              {faults[0]?.words}
            </Text>
          )}
          <Button tone="primary" className="min-h-16" textClassName="text-xl" testID="primary" onPress={sign}>
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
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-3"}>
        <View className="gap-3 lg:flex-1" style={wide ? { flex: 1 } : undefined}>
          <TextField
            label="Work done, and on which part"
            value={draft.done}
            onChange={(done) => set({ done })}
            maxLength={4000}
            multiline
            fault={fault("done")}
          />
          <TextField
            label="Reference"
            value={draft.reference}
            onChange={(reference) => set({ reference })}
            maxLength={400}
            placeholder="manual, directive, drawing"
          />
          <DateField
            label="Date of the work"
            value={draft.date}
            max={papers.today}
            onChange={(date) => set({ date })}
            fault={fault("date")}
          />
          {faults.some(({ confirm }) => confirm === "late entry") && (
            <Toggle
              on={draft.late}
              className="items-start self-start px-4"
              textClassName="text-base text-left"
              onPress={() => set({ late: !draft.late })}
            >
              The date is right: this is a late entry
            </Toggle>
          )}
          <ReleaseMeters draft={draft} papers={papers} set={set} fault={fault} />
          <View className="flex-row gap-2">
            <View className="flex-1">
              <TextField
                label="Certificate type"
                value={draft.kind}
                onChange={(kind) => set({ kind })}
                maxLength={80}
                fault={fault("certificate")}
              />
            </View>
            <View className="flex-1">
              <TextField
                label="Certificate number"
                value={draft.number}
                onChange={(number) => set({ number })}
                maxLength={80}
              />
            </View>
          </View>
          {wide && <PastReleases aircraft={aircraft} />}
        </View>
        <View className="gap-3" style={wide ? { flex: 1 } : undefined}>
          <ReleaseWorks
            draft={draft}
            papers={papers}
            set={set}
            fault={fault}
            rows={rows.filter(({ item }) => full || isPilotsWork(item))}
          />
          <Closes
            open={open}
            closes={draft.closes}
            onFlip={(id) => set({ closes: flip(draft.closes, id) })}
          />
          <TextField
            label="Re-inspect after this many hours (if required)"
            value={draft.leak}
            onChange={(leak) => set({ leak })}
            maxLength={6}
            placeholder="none"
            fault={fault("leak")}
          />
          {fault("works") && <Alert>{fault("works") ?? ""}</Alert>}
          {!wide && <PastReleases aircraft={aircraft} />}
        </View>
      </View>
    </Screen>
  );
}

function Closes({
  open,
  closes,
  onFlip,
}: {
  open: readonly OpenDiscrepancy[];
  closes: readonly string[];
  onFlip: (id: string) => void;
}) {
  if (open.length === 0) return null;
  return (
    <>
      <Heading className="text-lg">Discrepancies signed off</Heading>
      <View className="gap-2">
        {open.map(({ id, text }) => (
          <Toggle key={id} on={closes.includes(id)} className="self-start px-4" onPress={() => onFlip(id)}>
            {text}
          </Toggle>
        ))}
      </View>
    </>
  );
}
