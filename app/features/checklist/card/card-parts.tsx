import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { Card } from "@cravix/core/cards/card-of";
import { useEffect, useRef } from "react";
import { Pressable, View } from "react-native";
import { useBundle } from "../../../store/server/server-state";
import { Alert } from "../../../ui/alert";
import { GradeMark } from "../../../ui/grade-mark";
import { Toggle } from "../../../ui/input/toggle";
import { Caution, JudgementCard } from "../../../ui/judgement-card";
import { lastReadingText } from "../../../ui/last-reading-text";
import { Heading, Text } from "../../../ui/text";
import { useWide } from "../../../ui/use-wide";
import type { LoadedPreflight } from "../../open-preflight";
import { preview } from "../answers/measure-panel";
import { StepPanel } from "../step-frame";
import type { CardNumbers } from "./use-card-numbers";

/** Parts of a card with their good condition, and entered numbers. */
export function CardParts({
  preflight,
  card,
  why,
  numbers,
  onChoose,
  question,
}: {
  preflight: LoadedPreflight;
  card: Card;
  why: boolean;
  numbers: CardNumbers;
  /** Set while a part must be chosen. */
  onChoose?: (part: Item) => void;
  question?: string;
}) {
  const wide = useWide();
  const { list, phase } = preflight;
  const station = list.stations.find((one) => one.id === card.parts[0]?.station)?.name;
  const cautions = [...new Set(card.parts.flatMap(({ caution }) => (caution ? [caution] : [])))];
  const panelLeft = wide && (phase === "run-up" || phase === "line-up");
  return (
    <View className="gap-2 px-[18px] pb-3" testID={`item-${card.parts[0]?.id}`} aria-live="polite">
      <View testID={`card-${card.id}`}>
        <Text className="font-mid text-sm text-voice">
          {[station !== card.title && station, `${card.parts.length} items together`]
            .filter(Boolean)
            .join(" · ")}
        </Text>
        <Heading level={1} className={numbers.parts.length > 0 ? "text-lg" : "text-2xl"}>
          {question ?? card.title}
        </Heading>
      </View>
      {card.parts.map((part) => (
        <Part
          key={part.id}
          part={part}
          preflight={preflight}
          why={why}
          numbers={numbers}
          {...(onChoose && { onChoose: () => onChoose(part) })}
        />
      ))}
      {cautions.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
      {!panelLeft && numbers.parts.length === 0 && phase !== "fluids" && <StepPanel preflight={preflight} />}
    </View>
  );
}

function Part({
  part,
  preflight,
  why,
  numbers,
  onChoose,
}: {
  part: Item;
  preflight: LoadedPreflight;
  why: boolean;
  numbers: CardNumbers;
  onChoose?: () => void;
}) {
  const today = preflight.list.differences.find((one) => one.itemId === part.id)?.why;
  const words = (
    <View className="min-w-0 shrink grow">
      <Text className="font-strong">
        {part.title.replace(/: read it$/, "")}
        {today && <Text className="text-sm text-voice">{`  today: ${today}`}</Text>}
      </Text>
      <Text className="text-sm text-voice">{part.good}</Text>
      {why && <Text className="text-sm">{part.why}</Text>}
    </View>
  );
  if (onChoose)
    return (
      <Pressable
        role="button"
        testID={`found-at-${part.id}`}
        onPress={onChoose}
        className="min-h-14 flex-row items-center gap-3 rounded-xl border-2 border-ink px-3 py-1.5"
      >
        <GradeMark grade={part.miss} size={20} />
        {words}
      </Pressable>
    );
  if (part.kind === "choice") return <ChoicePart part={part} words={words} numbers={numbers} />;
  if (part.reading) return <NumberPart part={part} preflight={preflight} words={words} numbers={numbers} />;
  return (
    <View className="flex-row gap-3">
      <View className="mt-2 h-2 w-2 rounded-full bg-ink" />
      {words}
    </View>
  );
}

function ChoicePart({ part, words, numbers }: { part: Item; words: React.ReactNode; numbers: CardNumbers }) {
  const chosen = numbers.textOf(part);
  return (
    <View className="gap-1">
      {words}
      <View className="flex-row flex-wrap gap-2" role="group" aria-label={part.title}>
        {(part.choices ?? []).map((choice) => (
          <Toggle
            key={choice.value}
            className="min-w-20 flex-1"
            on={chosen === choice.value}
            testID={`choose-${choice.value}`}
            onPress={() => numbers.pick(part, choice.value)}
          >
            {choice.label}
          </Toggle>
        ))}
      </View>
      {numbers.tried === part.id && chosen === "" && <Alert frame="box">Choose an answer first.</Alert>}
    </View>
  );
}

function NumberPart({
  part,
  preflight,
  words,
  numbers,
}: {
  part: Item;
  preflight: LoadedPreflight;
  words: React.ReactNode;
  numbers: CardNumbers;
}) {
  const bundle = useBundle(preflight.list.registration);
  const row = useRef<View>(null);
  const here = numbers.active?.id === part.id;
  const value = numbers.numberOf(part);
  const problem = numbers.troubleOf(part);
  // Keep the active number above the keypad.
  useEffect(() => {
    if (here) (row.current as unknown as HTMLElement | null)?.scrollIntoView?.({ block: "center" });
  }, [here]);
  const last = bundle?.lastReadings.find((one) => one.key === part.reading?.key);
  const judged =
    value === undefined || problem
      ? []
      : preview(preflight, part, value, {}).filter(
          ({ grade }) => grade !== "within limits" && grade !== "unjudged",
        );
  return (
    <View ref={row} className="gap-1" testID={`number-row-${part.id}`}>
      <Pressable
        role="button"
        aria-current={here ? "true" : undefined}
        testID={here ? "number-here" : `number-${part.id}`}
        onPress={() => numbers.choose(part)}
        className={`min-h-14 flex-row items-center gap-3 rounded-xl border-2 px-3 py-1.5 ${here ? "border-ink bg-chock" : "border-stone"}`}
      >
        <View className="min-w-0 shrink grow">
          {here ? (
            <Text className="font-strong text-on-chock">{part.title.replace(/: read it$/, "")}</Text>
          ) : (
            words
          )}
          {here && (
            <Text className="text-xs text-on-chock">
              {last && part.reading
                ? `last time ${lastReadingText(last, part.reading.decimals, [])}`
                : part.good}
            </Text>
          )}
        </View>
        <Text
          className={`font-strong text-2xl ${here ? "text-on-chock" : ""}`}
          {...(here && { testID: "typed" })}
        >
          {numbers.shownOf(part).start !== "" && (
            <Text className={`text-2xl ${here ? "text-on-chock" : "text-voice"}`}>
              {numbers.shownOf(part).start}
            </Text>
          )}
          {numbers.shownOf(part).rest.replace("-", "−") || "–"}
        </Text>
        <Text className={here ? "text-on-chock" : "text-voice"}>{part.reading?.unit}</Text>
      </Pressable>
      {problem && (
        <Alert frame="box" testID="trouble">
          {problem}
        </Alert>
      )}
      {numbers.tried === part.id && value === undefined && (
        <Alert frame="box">Enter the reading first.</Alert>
      )}
      {judged.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
    </View>
  );
}
