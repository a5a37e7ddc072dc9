import {
  type AirworthinessSnapshot,
  judgeAirworthiness,
  metersOfSnapshot,
  type RequestedFlight,
} from "@cravix/core/airworthiness/airworthiness-snapshot";
import { dueJudgement, isSoon } from "@cravix/core/airworthiness/due/due-judgement";
import { useMemo } from "react";
import { View } from "react-native";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { Text } from "../../ui/text";

/** Items in date named on a phone; the rest is counted. */
const NAMED = 2;

/** Due items judged for this flight: problems first, then the next ones, the rest in one line. */
export function DueJudgements({ papers, asked }: { papers: AirworthinessSnapshot; asked: RequestedFlight }) {
  const rows = useMemo(() => {
    const meters = metersOfSnapshot(papers);
    return judgeAirworthiness(papers, asked)
      .filter(({ verdict }) => verdict.state !== "not for this flight")
      .map(({ item, verdict }) => ({
        judgement: dueJudgement(item, verdict, meters),
        soon: isSoon(verdict),
      }));
  }, [papers, asked]);
  const against = rows.filter(({ judgement }) => judgement.grade !== "within limits");
  const fine = rows.filter(({ judgement }) => judgement.grade === "within limits");
  const named = [...fine.filter(({ soon }) => soon), ...fine.filter(({ soon }) => !soon)].slice(0, NAMED);
  return (
    <View className="gap-1.5 rounded-xl bg-stone px-3 py-2" testID="due-judgements">
      {against.map(({ judgement: { id, grade, subject, sentence, action } }) => (
        <View key={id} className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark grade={grade} size={20} />
          </View>
          <View className="shrink">
            <Text
              className={`font-strong ${grade === "stop" ? "text-clay" : ""}`}
            >{`${GRADE_WORD[grade]}: ${subject}`}</Text>
            <Text className="text-sm">{sentence}</Text>
            {action && <Text className="font-mid text-sm">{action}</Text>}
          </View>
        </View>
      ))}
      {named.map(({ judgement: { id, subject, sentence } }) => (
        <View key={id} className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark grade="within limits" size={18} />
          </View>
          <Text className="shrink text-sm">{`${subject}: ${sentence}`}</Text>
        </View>
      ))}
      {fine.length > named.length && (
        <Text className="text-sm text-voice">{`${fine.length - named.length} more items in date until the end of this flight, according to the record.`}</Text>
      )}
    </View>
  );
}
