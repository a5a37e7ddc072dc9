import { formatNumber } from "@cravix/core";
import type { DiagnosisReport } from "@cravix/core/diagnosis";
import { View } from "react-native";
import { Heading, Text } from "../../ui/text";

/** What is likeliest in a sentence, why, how sure it is, and what would tell most next. */
export function DiagnosisPanel({
  report,
  remedied,
}: {
  report: DiagnosisReport;
  remedied: boolean | undefined;
}) {
  const [best, ...others] = report.ranked;
  if (!best) return null;
  if (!best.fault)
    return (
      <View testID="diagnosis" className="gap-1">
        <Heading className="text-2xl">Nothing stands out</Heading>
        <Text className="text-voice">{`${best.probability > 0.99 ? "Over 99" : formatNumber(best.probability * 100)} % sure, by what the trace shows. The aircraft's handbook comes first.`}</Text>
      </View>
    );
  const [next] = report.next;
  return (
    <View testID="diagnosis" className="gap-2">
      <Heading className="text-2xl">
        {remedied ? `It was most likely: ${best.name}. Gone now.` : `Most likely: ${best.name}`}
      </Heading>
      {report.telling.slice(0, 3).map((words) => (
        <Text key={words}>{words}</Text>
      ))}
      {report.unlike && (
        <Text className="font-mid text-clay">Nothing on file explains all of it well: ask a mechanic.</Text>
      )}
      <View className="gap-1" aria-label="How likely each is">
        {[best, ...others].slice(0, 3).map((one) => (
          <View key={`${one.fault}${one.side}${one.cylinder}`} className="flex-row items-center gap-2">
            <Text className="w-[48%] text-sm">{one.name}</Text>
            <View className="h-3.5 flex-1 flex-row items-center">
              <View className="h-3.5 bg-ink" style={{ width: `${Math.max(1, one.probability * 80)}%` }} />
              <Text className="ml-1.5 font-strong text-sm">{`${formatNumber(one.probability * 100)} %`}</Text>
            </View>
          </View>
        ))}
      </View>
      {best.action && !remedied && <Text className="font-mid">{best.action}</Text>}
      {best.caution && !remedied && (
        <View className="border-l-4 border-clay pl-2">
          <Text className="font-mid text-clay">{best.caution}</Text>
        </View>
      )}
      {next && !remedied && (
        <View className="gap-0.5 border-l-[6px] border-chock pl-3" testID="tells-most">
          <Text>
            <Text className="font-strong">Tells most next: </Text>
            {next.title}
          </Text>
          <Text className="text-sm">{next.how}</Text>
          {next.outcomes.slice(0, 2).map((outcome) => (
            <Text key={outcome.state} className="text-sm text-voice">
              {`${outcome.state.slice(0, 1).toUpperCase()}${outcome.state.slice(1)} then: ${outcome.likeliest}, ${formatNumber(outcome.probability * 100)}\u00a0%`}
            </Text>
          ))}
          <Text className="text-sm text-voice">{next.caution}</Text>
        </View>
      )}
    </View>
  );
}
