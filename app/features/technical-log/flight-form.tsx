import { newId } from "@cravix/contract/client";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import type { EventData } from "@cravix/core/checklist/stream/events";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { recordAll } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { DateField } from "../../ui/input/date-field";
import { Stepper } from "../../ui/input/stepper";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import type { KnownAircraft } from "../aircraft-frame";
import {
  type DraftFault,
  draftFrom,
  draftOf,
  type FlightDraft,
  faultsOf,
  fullStopsOf,
  lineOfDraft,
} from "./flight-draft";

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
export function FlightForm({ aircraft, papers, lines, correcting, onLogged, onCancel }: FlightFormProps) {
  const { bundle, crewId } = aircraft;
  const { registration } = bundle.aircraft;
  const { meters } = papers.record;
  const wide = useWide();
  const dispatch = useAppDispatch();
  const pilot = correcting?.pilot ?? crewId ?? "";
  const [why, setWhy] = useState("");
  const accepted = bundle.recentPreflights.find(({ decision }) => decision === "fly")?.signedAt;
  const since = papers.lastLine?.on;
  const proposed = useMemo(
    () =>
      correcting
        ? draftFrom(correcting)
        : draftOf(papers, {
            base: bundle.airfield?.name ?? bundle.aircraft.base,
            pilot,
            now: new Date().toISOString(),
            // An acceptance that already has an entry is not proposed again.
            ...(accepted && (!since || accepted > since) && { acceptedAt: accepted }),
          }),
    [papers, bundle, pilot, accepted, since, correcting],
  );
  const [typed, setTyped] = useState<Partial<FlightDraft>>({});
  const draft: FlightDraft = { ...proposed, ...typed };
  const [faults, setFaults] = useState<DraftFault[]>([]);
  const [asked, setAsked] = useState("");
  const set = (part: Partial<FlightDraft>) => {
    setTyped({ ...typed, ...part });
    setAsked("");
  };
  const fault = (at: string) => faults.find((one) => one.at === at && one.weight === "refused")?.words;
  const log = () => {
    const made = lineOfDraft(draft, {
      registration,
      pilot,
      meters,
      ...(correcting?.crew && { crew: correcting.crew }),
    });
    const { line } = made;
    const found = line
      ? faultsOf(line, {
          papers,
          others: lines,
          ...(correcting && { correcting: correcting.id }),
          now: new Date().toISOString(),
          built: bundle.aircraft.year,
        })
      : made.faults;
    setFaults(found);
    const key = JSON.stringify(line);
    if (!line || found.some(({ weight }) => weight === "refused")) return;
    if (found.length > 0 && asked !== key) {
      // Queried once; submitting again confirms it.
      setAsked(key);
      return;
    }
    const remarks = found.map(({ words }) => words).join(" ");
    const data: EventData["flight.logged"] = {
      ...line,
      ...(remarks !== "" && {
        remarks: [line.remarks, `Logged despite this warning: ${remarks}`].filter(Boolean).join(" "),
      }),
    };
    if (correcting)
      dispatch(
        recordAll(
          correcting.id,
          [
            {
              type: "flight.corrected",
              data: { registration, of: correcting.id, line: data, why: why.trim() },
            },
          ],
          { stream: "flight" },
        ),
      );
    else {
      const firstId = newId(Date.now());
      dispatch(recordAll(firstId, [{ type: "flight.logged", data }], { stream: "flight", firstId }));
    }
    setTyped({});
    setFaults([]);
    onLogged(`${correcting ? "Corrected" : "Logged"}: ${line.from} to ${line.to}.`);
  };
  const strike = () => {
    if (!correcting || why.trim() === "") return;
    dispatch(
      recordAll(
        correcting.id,
        [{ type: "flight.corrected", data: { registration, of: correcting.id, why: why.trim() } }],
        { stream: "flight" },
      ),
    );
    onLogged("Struck out. The entry stays on record.");
  };
  const questions = faults.filter(({ weight }) => weight === "asked");
  const body = (
    <View className="gap-3">
      <Text className="text-sm text-voice">The next flight starts from the last meter reading.</Text>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <TextField
            label="From"
            value={draft.from}
            onChange={(from) => set({ from })}
            maxLength={80}
            fault={fault("from")}
          />
        </View>
        <View className="flex-1">
          <TextField
            label="To"
            value={draft.to}
            onChange={(to) => set({ to })}
            maxLength={80}
            fault={fault("to")}
          />
        </View>
      </View>
      <DateField label="Date" value={draft.day} onChange={(day) => set({ day })} fault={fault("day")} />
      <View className="flex-row gap-2">
        <View className="flex-1">
          <TextField
            label="Off blocks"
            value={draft.off}
            onChange={(off) => set({ off })}
            maxLength={5}
            placeholder="09:30"
            fault={fault("off")}
          />
        </View>
        <View className="flex-1">
          <TextField
            label="On blocks"
            value={draft.on}
            onChange={(on) => set({ on })}
            maxLength={5}
            placeholder="10:45"
            fault={fault("on")}
          />
        </View>
      </View>
      {meters
        .filter(({ kind }) => !isCounted(kind))
        .map(({ id, name }) => (
          <View key={id} className="flex-row gap-2">
            <View className="flex-1">
              <TextField
                label={`${name}, out`}
                value={draft.out[id] ?? ""}
                onChange={(text) => set({ out: { ...draft.out, [id]: text } })}
                maxLength={9}
                fault={fault(`meters.${id}.out`)}
              />
            </View>
            <View className="flex-1">
              <TextField
                label={`${name}, in`}
                value={draft.in[id] ?? ""}
                onChange={(text) => set({ in: { ...draft.in, [id]: text } })}
                maxLength={9}
                fault={fault(`meters.${id}.in`)}
              />
            </View>
          </View>
        ))}
      <Toggle
        on={draft.ground === true}
        className="self-start px-4"
        testID="ground-run"
        onPress={() => set({ ground: !draft.ground })}
      >
        Ground run, no flight
      </Toggle>
      {meters
        .filter(({ kind }) => isCounted(kind) && !draft.ground)
        .map(({ id, name }) => (
          <View key={id} className="gap-1">
            <Text className="font-mid text-sm">{name}</Text>
            <Stepper
              text={String(draft.counts[id] ?? 0)}
              step={1}
              unit={name.toLowerCase()}
              testID={`count-${id}`}
              onStep={(by) =>
                set({ counts: { ...draft.counts, [id]: Math.max(0, (draft.counts[id] ?? 0) + by) } })
              }
            />
          </View>
        ))}
      {!draft.ground && (
        <View className="gap-1">
          <Text className="font-mid text-sm">Landings at night</Text>
          <Stepper
            text={String(draft.nightLandings)}
            step={1}
            unit="landings at night"
            onStep={(by) => set({ nightLandings: Math.max(0, draft.nightLandings + by) })}
          />
        </View>
      )}
      {draft.nightLandings > 0 && !draft.ground && (
        <View className="gap-1">
          <Text className="font-mid text-sm">Of these, to a full stop</Text>
          <Stepper
            text={String(fullStopsOf(draft))}
            step={1}
            unit="full stops at night"
            onStep={(by) =>
              set({
                nightFullStops: Math.min(draft.nightLandings, Math.max(0, fullStopsOf(draft) + by)),
              })
            }
          />
        </View>
      )}
      <TextField
        label="Remarks"
        value={draft.remarks}
        onChange={(remarks) => set({ remarks })}
        maxLength={2000}
        multiline
      />
      {correcting && (
        <TextField
          label="Reason for the correction"
          value={why}
          onChange={setWhy}
          maxLength={400}
          multiline
        />
      )}
      {correcting && (
        <Button
          className="self-start px-5"
          textClassName="text-base"
          disabled={why.trim() === ""}
          onPress={strike}
          testID="withdraw"
        >
          Flight did not take place: strike out
        </Button>
      )}
      {questions.map(({ at, words }) => (
        <Alert key={`${at}${words}`} frame="box">
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
      disabled={correcting !== undefined && why.trim() === ""}
      onPress={log}
    >
      {questions.length > 0 && asked !== ""
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
          <Button tone="deck" className="min-h-16 flex-1" textClassName="text-base" onPress={onCancel}>
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
