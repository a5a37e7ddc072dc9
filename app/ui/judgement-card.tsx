import type { Judgement } from "@cravix/core/judgement/judgement";
import { formatQuantity } from "@cravix/core/units/format";
import { View } from "react-native";
import { GRADE_WORD, GradeMark } from "./grade-mark";
import { Text } from "./text";

/** A judgement with its reading, limit, margin, source and sentence. */
export function JudgementCard({ judgement, compact = false }: { judgement: Judgement; compact?: boolean }) {
  const { grade, subject, reading, limit, margin, source, sentence, action, caution } = judgement;
  const bad = grade === "stop";
  return (
    <View
      testID={`judgement-${judgement.id}`}
      className={`rounded-xl bg-stone px-3 py-2 ${bad ? "border-l-8 border-clay" : ""}`}
    >
      <View className="flex-row items-center gap-2">
        <GradeMark grade={grade} />
        <Text className={`font-strong ${bad ? "text-clay" : ""}`}>{GRADE_WORD[grade]}</Text>
        <Text className="shrink text-sm text-voice">{subject}</Text>
      </View>
      <Text className="mt-0.5">{sentence}</Text>
      <View className="mt-1 flex-row flex-wrap gap-x-4">
        {reading && <Cell label="Reading" value={formatQuantity(reading)} />}
        {limit && <Cell label="Limit" value={limit} />}
        {margin && <Cell label="Margin" value={formatQuantity(margin)} />}
      </View>
      {source && !compact && (
        <Text className="mt-1 text-sm text-voice">
          {source.text}
          {source.example && !source.text.includes("example") ? " (example value)" : ""}
        </Text>
      )}
      {action && <Text className="mt-1 font-mid">{action}</Text>}
      {caution && !compact && <Caution>{caution}</Caution>}
    </View>
  );
}

function Cell({ label, value }: { label: string; value: string }) {
  return (
    <View>
      <Text className="text-xs text-voice">{label}</Text>
      <Text className="font-mid">{value}</Text>
    </View>
  );
}

/** Warning where the work can hurt someone. */
export function Caution({ children }: { children: string }) {
  return (
    <View className="mt-1 border-l-4 border-chock pl-2">
      <Text className="text-sm text-ink">{children}</Text>
    </View>
  );
}
