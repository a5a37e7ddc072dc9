import type { JudgedDue } from "@cravix/core/airworthiness/airworthiness-snapshot";
import type { Purpose } from "@cravix/core/airworthiness/due/due-item";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import type { EventData } from "@cravix/core/checklist/stream/events";
import type { Control } from "react-hook-form";
import { View } from "react-native";
import { FormChoice, FormChoices, FormNumber, useFormField } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { DateField } from "../../ui/input/date-field";
import { TextField } from "../../ui/input/text-field";
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
  control: Control<ReleaseDraft, unknown, EventData["work.released"]>;
  papers: Airworthiness;
}

const PURPOSE_WORDS: Record<Purpose, string> = {
  "to the place of the work": "flown to the workshop",
  planning: "by planning",
};

/** Meters by which the completed items count. */
export function ReleaseMeters({ control, papers }: PartProps) {
  const works = useWatch({ control, name: "works" });
  return metersToEnter(papers, works).map(({ id, name, kind }) => (
    <FormNumber
      key={id}
      control={control}
      name="readings"
      entry={id}
      label={isCounted(kind) ? `${name} so far` : `${name} reading`}
      maxLength={9}
    />
  ));
}

/** Due items completed, with what each needs besides: a new printed date, a reading, the purpose of an overrun. */
export function ReleaseWorks({ control, papers, rows }: PartProps & { rows: readonly JudgedDue[] }) {
  const works = useWatch({ control, name: "works" });
  const included = includedIn(papers.onFile.record.items, works);
  return (
    <>
      <Heading className="text-lg">Due items completed</Heading>
      <FormChoices
        control={control}
        name="works"
        row
        options={rows.map(({ item }) => ({ id: item.id, words: item.name, testID: `does-${item.id}` }))}
      />
      {included.length > 0 && (
        <Text className="font-mid" testID="also-completes">
          {`This also completes: ${included.map(({ name }) => name).join(", ")}.`}
        </Text>
      )}
      {rows
        .filter(({ item }) => works.includes(item.id))
        .map((row) => (
          <WorkDetails key={row.item.id} row={row} control={control} />
        ))}
    </>
  );
}

function WorkDetails({
  row,
  control,
}: Pick<PartProps, "control"> & { row: Pick<JudgedDue, "item" | "verdict"> }) {
  const { id, name } = row.item;
  const needs = needsOf(row.item);
  const purposes = purposesOf(row);
  const {
    value: given = {},
    onChange,
    fault,
  } = useFormField<SetDraft, ReleaseDraft>({
    control,
    name: "sets",
    entry: id,
  });
  const date = useWatch({ control, name: "date" });
  if (!needs.date && !needs.reading && purposes.length === 0) return null;
  const change = (part: SetDraft) => onChange({ ...given, ...part });
  return (
    <View className="gap-2 rounded-xl bg-stone px-3 py-2">
      <Text className="font-strong">{name}</Text>
      {needs.date && (
        <DateField
          label={`${name}: valid until, as printed`}
          value={given.date ?? ""}
          min={date}
          onChange={(until) => change({ date: until })}
          fault={fault}
        />
      )}
      {needs.reading && (
        <TextField
          label={`${name}: ends at this total`}
          value={given.reading ?? ""}
          onChange={(reading) => change({ reading })}
          maxLength={9}
          numeric
          fault={needs.date ? undefined : fault}
        />
      )}
      {(needs.date || needs.reading) && (
        <TextField
          label={`${name}: where it is printed`}
          value={given.source ?? ""}
          onChange={(source) => change({ source })}
          maxLength={200}
          placeholder="label, certificate, order"
        />
      )}
      {purposes.length > 0 && (
        <FormChoice<ReleaseDraft, Purpose>
          control={control}
          name="under"
          entry={id}
          title="Beyond the limit"
          options={purposes}
          words={(purpose) => PURPOSE_WORDS[purpose]}
          why="The excess then comes off the next interval, where the programme says so."
        />
      )}
    </View>
  );
}
