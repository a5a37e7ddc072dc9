import { CONDITIONS, type Condition, type OwnItem, type Station } from "@cravix/core/aircraft/aircraft-type";
import { conditionText } from "@cravix/core/aircraft/condition-text";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { capital } from "@cravix/core/units/format";
import { View } from "react-native";
import { type Bound, FormChoice, FormSteps, FormText, useFormField } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { GRADE_WORD } from "../../ui/grade-mark";
import { Choice } from "../../ui/input/choice";
import type { OwnItemsDraft } from "./own-items-draft";

/** Kinds that can be added by hand; measures and others come in the aircraft's file. */
const OWN_KINDS = ["look", "feel", "count", "set"] as const;
const KIND_WORD: Record<string, string> = { look: "Look", feel: "Feel", count: "Count", set: "Set" };

interface EditorProps {
  control: Bound<OwnItemsDraft>["control"];
  /** Row of the item in the draft. */
  row: number;
  stations: readonly Station[];
}

/** Editor for one added item. */
export function ItemEditor({ control, row, stations }: EditorProps) {
  const at = <F extends keyof OwnItem & string>(field: F) => `items.${row}.${field}` as const;
  const kind = useWatch({ control, name: at("kind") });
  return (
    <View className="gap-4" testID="own-item-editor">
      <FormText
        control={control}
        name={at("title")}
        maxLength={600}
        label="Item, in a few words"
        placeholder="Left seat rail: rock it hard"
      />
      <FormChoice
        control={control}
        name={at("kind")}
        title="Type of check"
        options={OWN_KINDS}
        words={(one) => KIND_WORD[one] ?? one}
      />
      {kind === "count" && (
        <FormSteps
          control={control}
          name={at("expected")}
          words={(pieces) => `${pieces} expected`}
          step={1}
          unit="piece"
          min={1}
          max={60}
        />
      )}
      <FormText
        control={control}
        name={at("good")}
        maxLength={600}
        label="What good looks like"
        placeholder="both pins in, it does not slide"
      />
      <FormText
        control={control}
        name={at("bad")}
        maxLength={600}
        label="What bad looks like, if it helps"
        placeholder=""
      />
      <FormText
        control={control}
        name={at("why")}
        maxLength={600}
        label="Reason: what happened, or could happen"
        placeholder="This seat slid back on the climb."
      />
      <FormChoice
        control={control}
        name={at("station")}
        title="At which station?"
        options={stations.map((station) => station.id)}
        words={(id) => stations.find((station) => station.id === id)?.name ?? id}
      />
      <FormChoice
        control={control}
        name={at("miss")}
        title="Grade if it is not correct"
        options={FINDING_GRADES}
        words={(grade) => GRADE_WORD[grade]}
      />
      <WhenAsked control={control} row={row} />
    </View>
  );
}

function WhenAsked({ control, row }: Omit<EditorProps, "stations">) {
  const { value, onChange } = useFormField<Condition[] | undefined, OwnItemsDraft>({
    control,
    name: `items.${row}.when`,
  });
  return (
    <Choice
      title="When is it on the checklist?"
      options={["always", ...CONDITIONS]}
      value={value?.[0] ?? "always"}
      onChange={(when) => onChange(when === "always" ? undefined : CONDITIONS.filter((c) => c === when))}
      words={(when) => capital(conditionText(when))}
    />
  );
}
