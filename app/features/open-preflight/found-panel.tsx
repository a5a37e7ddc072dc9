import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { partOf } from "@cravix/core/aircraft/part-of";
import type { Photograph } from "@cravix/core/airworthiness/life/photograph";
import { FINDING_GRADES, type FindingGrade } from "@cravix/core/judgement/judgement";
import { View } from "react-native";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { Photographs } from "../photographs";

const MEANING: Record<FindingGrade, string> = {
  note: "corrected, or harmless",
  watch: "may fly, measure again next time",
  ask: "ask a mechanic or instructor first",
  stop: "do not fly",
};

interface Draft {
  text: string;
  measure: string;
  grade: FindingGrade;
  photographs?: Photograph[];
}

/** Draft of a discrepancy. It survives a reload. */
export function useFoundDraft(walkId: string, item: Item, preset?: string) {
  const key = `found draft:${walkId}:${item.id}`;
  const first: Draft = { text: preset ?? suggestion(item), measure: "", grade: item.miss };
  const { value, change, drop } = usePersistedState(key, first);
  return {
    draft: value,
    change: (part: Partial<Draft>) => change((before) => ({ ...before, ...part })),
    drop,
  };
}

function suggestion(item: Item): string {
  const what = item.bad?.split(":")[0];
  const part = partOf(item);
  return what ? `${part}: ${what}` : `${part}: not as it should be`;
}

export type FoundDraft = ReturnType<typeof useFoundDraft>;

export function FoundPanel({ found, item }: { found: FoundDraft; item: Item }) {
  const { draft, change } = found;
  return (
    <View className="gap-3">
      <Heading level={1} className="text-2xl">
        What did you find?
      </Heading>
      <Text className="text-sm text-voice">Item: {item.title}</Text>
      <TextField
        label="Note for the next pilot and the mechanic"
        named="What was found"
        value={draft.text}
        onChange={(text) => change({ text })}
        multiline
        maxLength={2000}
      />
      <TextField
        label="Count or measure, if there is one"
        named="Count or measure"
        value={draft.measure}
        onChange={(measure) => change({ measure })}
        maxLength={200}
        placeholder="3 mm, 4 drops a minute …"
      />
      <Photographs
        photographs={draft.photographs ?? []}
        onAdd={(one) => change({ photographs: [...(draft.photographs ?? []), one] })}
        onRemove={(one) =>
          change({
            photographs: (draft.photographs ?? []).filter(({ photograph }) => photograph !== one.photograph),
          })
        }
      />
      <View role="radiogroup" aria-label="How bad is it?" className="gap-2">
        {FINDING_GRADES.map((grade) => (
          <Toggle
            key={grade}
            className="flex-row justify-start gap-3"
            on={draft.grade === grade}
            onPress={() => change({ grade })}
          >
            <View className="w-full flex-row items-center gap-3">
              <GradeMark grade={grade} size={24} />
              <Text className={`font-strong ${draft.grade === grade ? "text-on-chock" : ""}`}>
                {GRADE_WORD[grade]}
              </Text>
              <Text className={`shrink text-sm ${draft.grade === grade ? "text-on-chock" : "text-voice"}`}>
                {MEANING[grade]}
              </Text>
            </View>
          </Toggle>
        ))}
      </View>
      <Text className="text-sm text-voice">
        You decide as pilot in command. The handbook, local rules and licensed maintenance come first.
      </Text>
    </View>
  );
}
