import type { JudgedDue } from "@cravix/core/airworthiness/airworthiness-snapshot";
import type { DueItem, Purpose } from "@cravix/core/airworthiness/due/due-item";
import type { ReleaseFault } from "@cravix/core/airworthiness/life/release";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import { View } from "react-native";
import { Choice } from "../../ui/input/choice";
import { DateField } from "../../ui/input/date-field";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import type { Airworthiness } from "../due";
import {
  includedIn,
  metersToEnter,
  needsOf,
  purposesOf,
  type ReleaseDraft,
  type SetDraft,
} from "./release-draft";

interface PartProps {
  draft: ReleaseDraft;
  papers: Airworthiness;
  set: (part: Partial<ReleaseDraft>) => void;
  fault: (at: ReleaseFault["at"]) => string | undefined;
}

const PURPOSE_WORDS: Record<Purpose, string> = {
  "to the place of the work": "flown to the workshop",
  planning: "by planning",
};

/** Meters by which the completed items count. */
export function ReleaseMeters({ draft, papers, set, fault }: PartProps) {
  return metersToEnter(papers, draft.works).map(({ id, name, kind }) => (
    <TextField
      key={id}
      label={isCounted(kind) ? `${name} so far` : `${name} reading`}
      value={draft.readings[id] ?? ""}
      onChange={(text) => set({ readings: { ...draft.readings, [id]: text } })}
      maxLength={9}
      numeric
      fault={fault(`readings.${id}`)}
    />
  ));
}

/** Due items completed, with what each needs besides: a new printed date, a reading, the purpose of an overrun. */
export function ReleaseWorks({
  draft,
  papers,
  set,
  fault,
  rows,
}: PartProps & { rows: readonly JudgedDue[] }) {
  const { works } = draft;
  const included = includedIn(papers.onFile.record.items, works);
  const flip = (id: string) =>
    set({ works: works.includes(id) ? works.filter((one) => one !== id) : [...works, id] });
  return (
    <>
      <Heading className="text-lg">Due items completed</Heading>
      <View className="flex-row flex-wrap gap-2">
        {rows.map(({ item }) => (
          <Toggle
            key={item.id}
            on={works.includes(item.id)}
            testID={`does-${item.id}`}
            onPress={() => flip(item.id)}
          >
            {item.name}
          </Toggle>
        ))}
      </View>
      {included.length > 0 && (
        <Text className="font-mid" testID="also-completes">
          {`This also completes: ${included.map(({ name }) => name).join(", ")}.`}
        </Text>
      )}
      {rows
        .filter(({ item }) => works.includes(item.id))
        .map((row) => (
          <WorkDetails key={row.item.id} row={row} draft={draft} set={set} fault={fault} />
        ))}
    </>
  );
}

function WorkDetails({
  row,
  draft,
  set,
  fault,
}: Omit<PartProps, "papers"> & { row: Pick<JudgedDue, "item" | "verdict"> }) {
  const { item } = row;
  const needs = needsOf(item);
  const purposes = purposesOf(row);
  if (!needs.date && !needs.reading && purposes.length === 0) return null;
  const given = draft.sets[item.id] ?? {};
  const change = (part: SetDraft) => set({ sets: { ...draft.sets, [item.id]: { ...given, ...part } } });
  return (
    <View className="gap-2 rounded-xl bg-stone px-3 py-2">
      <Text className="font-strong">{item.name}</Text>
      {needs.date && (
        <DateField
          label={`${item.name}: valid until, as printed`}
          value={given.date ?? ""}
          min={draft.date}
          onChange={(date) => change({ date })}
          fault={fault(`sets.${item.id}`)}
        />
      )}
      {needs.reading && (
        <TextField
          label={`${item.name}: ends at this total`}
          value={given.reading ?? ""}
          onChange={(reading) => change({ reading })}
          maxLength={9}
          numeric
          fault={needs.date ? undefined : fault(`sets.${item.id}`)}
        />
      )}
      {(needs.date || needs.reading) && <SourceField item={item} given={given} onChange={change} />}
      {purposes.length > 0 && (
        <Choice
          title="Beyond the limit"
          options={purposes}
          value={draft.under[item.id]}
          words={(purpose) => PURPOSE_WORDS[purpose]}
          onChange={(purpose) => set({ under: { ...draft.under, [item.id]: purpose } })}
          why="The excess then comes off the next interval, where the programme says so."
        />
      )}
    </View>
  );
}

function SourceField({
  item,
  given,
  onChange,
}: {
  item: DueItem;
  given: SetDraft;
  onChange: (part: SetDraft) => void;
}) {
  return (
    <TextField
      label={`${item.name}: where it is printed`}
      value={given.source ?? ""}
      onChange={(source) => onChange({ source })}
      maxLength={200}
      placeholder="label, certificate, order"
    />
  );
}
