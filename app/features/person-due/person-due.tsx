import { type CrewMember, can } from "@cravix/contract/client";
import { isLocalDate, localDate } from "@cravix/core/airworthiness/calendar/local-date";
import { FLIGHT_KINDS } from "@cravix/core/airworthiness/due/due-item";
import { isSoon } from "@cravix/core/airworthiness/due/due-judgement";
import {
  AIRCRAFT_CLASSES,
  type AircraftClass,
  type JudgedPersonDue,
  judgePerson,
  personSentence,
} from "@cravix/core/airworthiness/people/person-due";
import { capital } from "@cravix/core/units/format";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { recordStandalone } from "../../store/preflight/record";
import { groupTimeZone, useCrew, useFleet } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { Choice } from "../../ui/input/choice";
import { DateField } from "../../ui/input/date-field";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { gradeOf } from "../due";
import { type MinimaDraft, MinimaFields, minimaOfDraft, minimaText, NO_MINIMA } from "./minima-fields";
import { GIVEN_PRESETS, PRESETS } from "./presets";
import { usePersonDue } from "./use-person-due";

/** Due items of a person, visible to them, instructors and administrators. */
export function PersonDueList({ member }: { member: CrewMember }) {
  const { may, own, record, away } = usePersonDue(member.id);
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  const role = crew.find(({ id }) => id === me)?.role;
  const today = localDate(new Date().toISOString(), useAppSelector(groupTimeZone));
  const rows = useMemo(
    () =>
      record &&
      judgePerson(record, {
        today,
        ends: today,
        kinds: FLIGHT_KINDS,
      }),
    [record, today],
  );
  if (!may)
    return (
      <View>
        <Heading className="text-lg">Medical, ratings and recency</Heading>
        <Text className="text-sm text-voice">
          {`Only ${member.name.split(" ")[0]}, instructors and administrators can see medical, ratings and recency.`}
        </Text>
      </View>
    );
  // Nobody can authorise themselves.
  const gives = can(role && { role }, "person.authorise") && !own;
  return (
    <View className="gap-2" testID="person-due">
      <Heading className="text-lg">Medical, ratings and recency</Heading>
      {away && !record && (
        <Text className="text-voice">No network, and nothing of this is saved on this device.</Text>
      )}
      {!away && !record && <Text className="text-voice">Fetching …</Text>}
      {rows?.length === 0 && <Text className="text-voice">No due items entered.</Text>}
      {rows?.map((row) => (
        <Row
          key={row.item.id}
          row={row}
          personId={member.id}
          today={today}
          mayChange={gives || !["authorisation", "review"].includes(row.item.kind)}
        />
      ))}
      {record && <Add personId={member.id} gives={gives} today={today} />}
      <Text className="text-sm text-voice">
        {own
          ? "Only you, instructors and administrators can see this. Recent flying is taken from the technical log. Limits are example values: the rules where you fly come first."
          : "Recent flying is taken from the technical log. Limits are example values."}
      </Text>
    </View>
  );
}

function Row({
  row,
  personId,
  today,
  mayChange,
}: {
  row: JudgedPersonDue;
  personId: string;
  today: string;
  mayChange: boolean;
}) {
  const dispatch = useAppDispatch();
  const { item, due, verdict, recency } = row;
  const [doing, setDoing] = useState<"renew" | "drop">();
  const [date, setDate] = useState(today);
  const [until, setUntil] = useState("");
  const printed = item.limits.some(({ by }) => by === "date");
  const counted = recency !== undefined;
  const soon = isSoon(verdict);
  const dayFault = isLocalDate(date.trim()) ? undefined : "Enter a date like 2026-03-31.";
  const untilFault =
    until.trim() === "" || isLocalDate(until.trim()) ? undefined : "Enter a date like 2027-03-31.";
  const renew = () => {
    if (dayFault || untilFault) return;
    dispatch(
      recordStandalone("person", "person.done", {
        personId,
        work: {
          item: item.id,
          date: date.trim(),
          ...(until.trim() !== "" && { sets: { date: until.trim() } }),
        },
      }),
    );
    setDoing(undefined);
  };
  return (
    <View className="gap-1 rounded-xl bg-stone px-4 py-3" testID={`person-${item.id}`}>
      <View className="flex-row items-center gap-2">
        <GradeMark grade={soon ? "note" : gradeOf(due, verdict)} size={20} />
        <Text className="shrink font-mid">{item.name}</Text>
      </View>
      <Text>{personSentence(row)}</Text>
      {item.minima && <Text className="text-sm">{capital(`${minimaText(item.minima)}.`)}</Text>}
      <Text className="text-sm text-voice">{item.source.text}</Text>
      {mayChange && doing === undefined && (
        <View className="flex-row flex-wrap gap-2">
          {!counted && (
            <Button
              className="px-4"
              textClassName="text-sm"
              testID={`renew-${item.id}`}
              onPress={() => setDoing("renew")}
            >
              Renew
            </Button>
          )}
          <Button tone="bare" className="px-0" textClassName="text-sm" onPress={() => setDoing("drop")}>
            Remove
          </Button>
        </View>
      )}
      {doing === "renew" && (
        <View className="gap-2">
          <DateField label="Date of renewal" value={date} max={today} onChange={setDate} fault={dayFault} />
          {printed && (
            <DateField label="Valid until" value={until} min={date} onChange={setUntil} fault={untilFault} />
          )}
          <Button
            tone="primary"
            className="self-start px-5"
            disabled={dayFault !== undefined || untilFault !== undefined || (printed && until.trim() === "")}
            testID="save-renewed"
            onPress={renew}
          >
            Save
          </Button>
        </View>
      )}
      {doing === "drop" && (
        <View className="flex-row flex-wrap gap-2">
          <Button
            tone="primary"
            className="px-5"
            onPress={() => {
              dispatch(recordStandalone("person", "person.due-dropped", { personId, item: item.id }));
              setDoing(undefined);
            }}
          >
            Remove
          </Button>
          <Button tone="bare" textClassName="text-base" onPress={() => setDoing(undefined)}>
            Cancel
          </Button>
        </View>
      )}
    </View>
  );
}

/** Draft of a due item. */
interface DueDraft {
  open: boolean;
  name: string;
  date: string;
  born?: string;
  examined?: string;
  called: string;
  of: AircraftClass;
  aircraft: string[];
  draft: MinimaDraft;
}

const NO_DUE: DueDraft = {
  open: false,
  name: "",
  date: "",
  called: "",
  of: "single-engine",
  aircraft: [],
  draft: NO_MINIMA,
};

function Add({ personId, gives, today }: { personId: string; gives: boolean; today: string }) {
  const dispatch = useAppDispatch();
  const fleet = useFleet();
  const presets = gives ? [...PRESETS, ...GIVEN_PRESETS] : PRESETS;
  // Saved, because changing the layout width remounts the form.
  const { value, change, drop } = usePersistedState<DueDraft>(`due draft:${personId}`, NO_DUE);
  const { open, date, born = "", examined = "", called, of, aircraft, draft } = value;
  const name = presets.find((one) => one.name === value.name)?.name ?? presets[0]?.name ?? "";
  const set = (part: Partial<DueDraft>) => change((before) => ({ ...before, ...part }));
  const setOpen = (next: boolean) => set({ open: next });
  const setName = (next: string) => set({ name: next });
  const setDate = (next: string) => set({ date: next });
  const setCalled = (next: string) => set({ called: next });
  const setOf = (next: AircraftClass) => set({ of: next });
  const setAircraft = (next: string[]) => set({ aircraft: next });
  const setDraft = (next: MinimaDraft) => set({ draft: next });
  const preset = presets.find((one) => one.name === name);
  if (!open)
    return (
      <Button
        className="self-start px-5"
        textClassName="text-base"
        testID="add-person-due"
        onPress={() => setOpen(true)}
      >
        Add a due item
      </Button>
    );
  if (!preset) return null;
  const minima = minimaOfDraft(draft);
  const rated = preset.name === "Licence or rating";
  const dateFault =
    date.trim() !== "" && !isLocalDate(date.trim()) ? "Enter a date like 2027-03-31." : undefined;
  const ready =
    (!preset.dated || (date.trim() !== "" && !dateFault)) &&
    (!preset.examined || (isLocalDate(born) && isLocalDate(examined) && born < examined)) &&
    (!rated || called.trim() !== "") &&
    (!preset.aircraft || aircraft.length > 0) &&
    (preset.minima !== "must" || minima !== undefined) &&
    // An invalid number does not count as no limit.
    (minima !== undefined || draft === NO_MINIMA);
  const enter = () => {
    const item = preset.make({
      date: date.trim(),
      class: of,
      aircraft,
      name: called.trim(),
      born,
      ...(preset.minima && minima && { minima }),
    });
    dispatch(recordStandalone("person", "person.due-set", { personId, item }));
    // Setting personal minimums counts as reviewing them; an examination is what a medical runs from.
    const done = preset.minima === "must" ? today : preset.examined ? examined : undefined;
    if (done !== undefined)
      dispatch(recordStandalone("person", "person.done", { personId, work: { item: item.id, date: done } }));
    change(() => NO_DUE);
    drop();
  };
  return (
    <View className="gap-2 rounded-xl border-2 border-ink px-4 py-3">
      <Choice title="Type" options={presets.map((one) => one.name)} value={name} onChange={setName} />
      {rated && <TextField label="Name" value={called} onChange={setCalled} maxLength={80} />}
      {preset.classed && (
        <Choice title="Aircraft class" options={AIRCRAFT_CLASSES} value={of} onChange={setOf} />
      )}
      {preset.aircraft && (
        <View className="flex-row flex-wrap gap-2" role="group" aria-label="On which aircraft">
          {(fleet?.aircraft ?? []).map(({ registration }) => (
            <Toggle
              key={registration}
              on={aircraft.includes(registration)}
              className="px-4"
              onPress={() =>
                setAircraft(
                  aircraft.includes(registration)
                    ? aircraft.filter((one) => one !== registration)
                    : [...aircraft, registration],
                )
              }
            >
              {registration}
            </Toggle>
          ))}
        </View>
      )}
      {preset.minima && <MinimaFields draft={draft} onChange={setDraft} />}
      {preset.dated && (
        <DateField label="Valid until" value={date} min={today} onChange={setDate} fault={dateFault} />
      )}
      {preset.examined && (
        <>
          <DateField
            label="Date of birth"
            value={born}
            max={today}
            onChange={(next) => set({ born: next })}
          />
          <DateField
            label="Date of the examination"
            value={examined}
            max={today}
            onChange={(next) => set({ examined: next })}
          />
        </>
      )}
      <View className="flex-row flex-wrap gap-2">
        <Button tone="primary" className="px-5" disabled={!ready} testID="save-person-due" onPress={enter}>
          Save
        </Button>
        <Button tone="bare" textClassName="text-base" onPress={() => setOpen(false)}>
          Cancel
        </Button>
      </View>
    </View>
  );
}
