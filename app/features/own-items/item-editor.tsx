import type { FileFault } from "@cravix/contract/files";
import { CONDITIONS, type Item, type OwnItem, type Station } from "@cravix/core/aircraft/aircraft-type";
import { conditionText } from "@cravix/core/aircraft/condition-text";
import { partOfTitle } from "@cravix/core/aircraft/part-of";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { capital } from "@cravix/core/units/format";
import { View } from "react-native";
import type { Change } from "../../store/state/apply-patch";
import { GRADE_WORD } from "../../ui/grade-mark";
import { Choice } from "../../ui/input/choice";
import { Stepper } from "../../ui/input/stepper";
import { TextField } from "../../ui/input/text-field";

/** Kinds that can be added by hand; measures and others come in the aircraft's file. */
export const OWN_KINDS = ["look", "feel", "count", "set"] as const;
const KIND_WORD: Record<string, string> = { look: "Look", feel: "Feel", count: "Count", set: "Set" };

/** Editor for one added item. */
export function ItemEditor({
  item,
  stations,
  faults,
  onChange,
}: {
  item: OwnItem;
  stations: readonly Station[];
  faults: readonly FileFault[];
  onChange: (part: Change<Item>) => void;
}) {
  const fault = (field: string) => faults.find((f) => f.path.endsWith(`.${field}`))?.expected;
  return (
    <View className="gap-4" testID="own-item-editor">
      <TextField
        maxLength={600}
        label="Item, in a few words"
        value={item.title}
        onChange={(title) => onChange({ title, part: partOfTitle(title) })}
        fault={fault("title")}
        placeholder="Left seat rail: rock it hard"
      />
      <Choice
        title="Type of check"
        options={OWN_KINDS}
        value={OWN_KINDS.find((kind) => kind === item.kind)}
        onChange={(kind) => onChange({ kind, expected: kind === "count" ? (item.expected ?? 1) : undefined })}
        words={(kind) => KIND_WORD[kind] ?? kind}
      />
      {item.kind === "count" && (
        <Stepper
          text={`${item.expected ?? 1} expected`}
          step={1}
          unit="piece"
          onStep={(by) => onChange({ expected: Math.min(60, Math.max(1, (item.expected ?? 1) + by)) })}
        />
      )}
      <TextField
        maxLength={600}
        label="What good looks like"
        value={item.good}
        onChange={(good) => onChange({ good })}
        fault={fault("good")}
        placeholder="both pins in, it does not slide"
      />
      <TextField
        maxLength={600}
        label="What bad looks like, if it helps"
        value={item.bad ?? ""}
        onChange={(bad) => onChange({ bad: bad === "" ? undefined : bad })}
        fault={fault("bad")}
        placeholder=""
      />
      <TextField
        maxLength={600}
        label="Reason: what happened, or could happen"
        value={item.why}
        onChange={(why) => onChange({ why })}
        fault={fault("why")}
        placeholder="This seat slid back on the climb."
      />
      <Choice
        title="At which station?"
        options={stations.map((station) => station.id)}
        value={item.station}
        onChange={(station) => onChange({ station })}
        words={(id) => stations.find((station) => station.id === id)?.name ?? id}
      />
      <Choice
        title="Grade if it is not correct"
        options={FINDING_GRADES}
        value={item.miss}
        onChange={(miss) => onChange({ miss })}
        words={(grade) => GRADE_WORD[grade]}
      />
      <Choice
        title="When is it on the checklist?"
        options={["always", ...CONDITIONS]}
        value={item.when?.[0] ?? "always"}
        onChange={(when) =>
          onChange({ when: when === "always" ? undefined : CONDITIONS.filter((c) => c === when) })
        }
        words={(when) => capital(conditionText(when))}
      />
    </View>
  );
}
