import { type DiagnosisReport, type NextTest, type Observation, outcomeText } from "@cravix/core/diagnosis";
import { capital } from "@cravix/core/units/format";
import { probabilityCases, probabilityNumber, probabilityWord } from "@cravix/core/units/probability-text";
import { View } from "react-native";
import { Button } from "../../../ui/input/button";
import { Heading, Text } from "../../../ui/text";

/** Faults that this run-up could not have shown, by the test that would: not assessed is not healthy. */
function Hidden({ report: { hidden } }: { report: DiagnosisReport }) {
  if (hidden.length === 0) return null;
  const byTest = new Map<string, string[]>();
  for (const { name, show = "No test in the cockpit shows it: ask a mechanic." } of hidden)
    byTest.set(show, [...(byTest.get(show) ?? []), name]);
  return (
    <View className="mt-1 gap-1 rounded-xl bg-stone px-3 py-2" testID="hidden-faults">
      <Text className="font-strong">{`Not assessed by this run-up: ${hidden.length}`}</Text>
      {[...byTest].map(([show, names]) => (
        <Text key={show} className="text-sm">
          <Text className="font-mid">{`${capital(names.join("; "))}. `}</Text>
          {show}
        </Text>
      ))}
    </View>
  );
}

/** How sure "no fault" is; without a number where a higher one would rest on faults being rare. */
const calmWords = ({ restsOnRates, hidden }: DiagnosisReport, calm: string): string =>
  restsOnRates
    ? "Likely none, as far as this run-up shows. More certainty would only come from faults being rare, not from what was measured."
    : `Probability of no fault: ${calm}, ${hidden.length > 0 ? "among those that this run-up can show" : "from the trace alone"}.`;

/** Minimum shown, because less would read "0 %". */
const MIN_SHOWN = 0.005;

/** Most likely explanation, evidence, confidence, and the next test. */
export function DiagnosisPanel({
  report,
  out,
  doubtful,
  unread,
  remedied,
  over,
  onTried,
}: {
  report: DiagnosisReport;
  /** Names of values out of limits. */
  out: readonly string[];
  /** Why a side is unreliable, if one is. */
  doubtful?: string | undefined;
  /** Magnetos that do not show: then the engine is not called healthy. */
  unread?: string | undefined;
  remedied: boolean | undefined;
  /** Taxi back: no more tests. */
  over: boolean;
  onTried: (observation: Observation) => void;
}) {
  const [best, ...others] = report.ranked;
  if (!best) return null;
  if (!best.fault) {
    const calm = probabilityNumber(best.probability);
    const isOut = out.length > 0;
    const heading = isOut
      ? `Out of limits: ${out.join(", ")}`
      : doubtful
        ? "Repeat the check"
        : unread
          ? `No reading: ${unread}`
          : report.hidden.length > 0
            ? "No fault found in what this run-up shows"
            : "No fault found";
    return (
      <View testID="diagnosis" className="gap-1">
        <Heading className="text-2xl">{heading}</Heading>
        {(isOut || doubtful) && (
          <Text>
            {doubtful
              ? `${doubtful} Repeat: five seconds on each side.`
              : "Repeat both sides, five seconds each. If the result is the same, the fault is real."}
          </Text>
        )}
        <Text className="text-voice">
          {isOut
            ? `No known fault explains it well (probability of no fault: ${calm}). The limit and the aircraft's handbook decide.`
            : unread
              ? `No fault found in the rest. Repeat the run-up, or enter the values you saw for ${unread}.`
              : `${calmWords(report, calm)} The aircraft's handbook comes first.`}
        </Text>
        <Hidden report={report} />
      </View>
    );
  }
  const [next] = report.next;
  return (
    <View testID="diagnosis" className="gap-2">
      <Heading className="text-2xl">
        {remedied
          ? `The fault was ${probabilityWord(best.probability)} this: ${best.name}. Now cleared.`
          : `${capital(probabilityWord(best.probability))}: ${best.name}`}
      </Heading>
      <Text className="text-voice">{`Probability ${probabilityNumber(best.probability)}, from what was measured.`}</Text>
      {report.telling.slice(0, 3).map((words) => (
        <Text key={words}>{words}</Text>
      ))}
      {report.unlike && (
        <Text className="font-mid text-clay">No known fault explains everything: ask a mechanic.</Text>
      )}
      <View className="gap-1" aria-label="How likely each is">
        {[best, ...others.filter(({ probability }) => probability >= MIN_SHOWN)].slice(0, 3).map((one) => (
          <View key={`${one.fault}${one.side}${one.cylinder}`} className="flex-row items-center gap-2">
            <Text className="w-[48%] text-sm">{one.name}</Text>
            <View className="h-3.5 flex-1 flex-row items-center">
              <View className="h-3.5 bg-ink" style={{ width: `${Math.max(1, one.probability * 80)}%` }} />
              <Text className="ml-1.5 font-strong text-sm">{probabilityCases(one.probability)}</Text>
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
      {next && !remedied && !over && (
        <View className="gap-0.5 border-l-[6px] border-chock pl-3" testID="next-test">
          <Text>
            <Text className="font-strong">Best next test: </Text>
            {next.title}
          </Text>
          <Text className="text-sm">{next.how}</Text>
          <Text className="text-sm text-voice">{next.caution}</Text>
          <Outcomes next={next} onTried={onTried} />
        </View>
      )}
    </View>
  );
}

/** Outcomes of the next test; tapping one adds it to the evidence. Plug clearing is coached instead. */
function Outcomes({ next, onTried }: { next: NextTest; onTried: (observation: Observation) => void }) {
  const asked = next.id !== "clear";
  return (
    <View className="mt-1 gap-1.5">
      {asked && <Text className="font-mid">Test done? Choose the result:</Text>}
      {next.outcomes.slice(0, 2).map(({ state, likeliest, probability }) => {
        const came = capital(outcomeText(state));
        const then = `${likeliest}, ${probabilityCases(probability).replaceAll(" ", "\u00a0")}`;
        return asked ? (
          <Button
            key={state}
            className="items-start px-3"
            textClassName="text-base"
            testID={`came-${state.replaceAll(" ", "-")}`}
            onPress={() =>
              onTried({
                feature: next.feature,
                state: state as Observation["state"],
                words: `${next.title}: ${outcomeText(state)}.`,
                ...(next.side && { side: next.side }),
              })
            }
          >
            {`${came} (then most likely: ${then})`}
          </Button>
        ) : (
          <Text key={state} className="text-sm text-voice">{`${came}: then most likely ${then}`}</Text>
        );
      })}
    </View>
  );
}
