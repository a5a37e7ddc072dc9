import {
  assertPlausible,
  type EngineFeel,
  GRADES,
  type Item,
  judgePreflight,
  QuantityError,
  READING,
  volumeFromDip,
} from "@cravix/core";
import { useState } from "react";
import { View } from "react-native";
import { useAppSelector } from "../../store/hooks";
import { Band } from "../../ui/band";
import { Button } from "../../ui/button";
import { JudgementCard } from "../../ui/judgement-card";
import { pressKey } from "../../ui/keypad";
import { Text } from "../../ui/text";
import { useShortcuts } from "../../ui/use-shortcuts";
import { lastReadingText } from "./last-reading";
import type { Walk } from "./use-preflight";

const FEELS: { value: EngineFeel; words: string }[] = [
  { value: "smooth", words: "Smooth" },
  { value: "rough", words: "Rough" },
  { value: "quit", words: "It quit" },
];

interface Entry {
  itemId: string;
  text: string;
  feel?: EngineFeel | undefined;
  tried: boolean;
}

/** The number being typed for a measuring item, with its trouble or its judgement as it will be. */
export function useMeasure(walk: Walk, item: Item, onDone: (value: number, feel?: EngineFeel) => void) {
  const [entry, setEntry] = useState<Entry>({ itemId: item.id, text: "", tried: false });
  // Another item, another number: what was typed for the last one does not show for a moment here.
  const { text, feel, tried } =
    entry.itemId === item.id ? entry : { text: "", feel: undefined, tried: false };
  const change = (part: Partial<Entry>) => setEntry({ itemId: item.id, text, feel, tried: false, ...part });
  const spec = item.reading;
  const negative = (spec?.plausible?.min ?? 0) < 0;
  const quit = spec?.feel && feel === "quit";
  const value = quit ? 0 : text === "" || text === "-" ? undefined : Number(text);
  const trouble = value === undefined ? undefined : troubleWith(walk, item, value);
  const onKey = (key: string) =>
    change({ text: pressKey(text, key, { decimals: spec?.decimals ?? 0, negative }) });
  const done = () => {
    change({ tried: true });
    if (value !== undefined && !trouble) onDone(value, feel);
  };
  useShortcuts({
    ...Object.fromEntries([..."0123456789."].map((digit) => [digit, () => onKey(digit)])),
    "-": () => onKey("sign"),
    Backspace: () => onKey("back"),
    Enter: done,
  });
  return {
    text,
    value,
    trouble,
    tried,
    feel,
    setFeel: (next: EngineFeel) => change({ feel: next }),
    onKey,
    done,
    negative,
    decimals: spec?.decimals ?? 0,
  };
}

export type Measure = ReturnType<typeof useMeasure>;

/** Why a number cannot be what was read, in words; the number stays on the screen to be mended. */
function troubleWith(walk: Walk, item: Item, value: number): string | undefined {
  const { reading } = item;
  if (!reading) return undefined;
  try {
    assertPlausible(item.title, value, reading.unit, reading.plausible);
    const tank = walk.list.type.fuel?.tanks.find((t) => READING.tankDip(t.id) === reading.key);
    if (tank?.calibration) volumeFromDip(tank.calibration, value);
    return undefined;
  } catch (error) {
    if (error instanceof QuantityError) return error.message;
    throw error;
  }
}

/** What has been typed, what it was last time, what is allowed, and what it comes to. */
export function MeasurePanel({ walk, item, measure }: { walk: Walk; item: Item; measure: Measure }) {
  const bundle = useAppSelector((state) => state.fleet.bundles[walk.list.registration]);
  const crew = useAppSelector((state) => state.fleet.fleet?.crew);
  const { text, value, trouble, tried, feel, setFeel } = measure;
  const spec = item.reading;
  if (!spec) return null;
  const last = bundle?.lastReadings.find((r) => r.key === spec.key);
  const judged = value === undefined || trouble ? [] : preview(walk, item, value, feel);
  return (
    <View className="gap-2">
      <View className="flex-row items-end justify-between">
        <View className="flex-row items-end gap-2 border-b-4 border-ink pr-3" testID="typed">
          <Text className="font-strong text-3xl">
            {feel === "quit" && spec.feel ? "0" : text.replace("-", "−") || "–"}
          </Text>
          <Text className="pb-1 font-mid text-lg text-voice">{spec.unit}</Text>
        </View>
        <View className="shrink items-end">
          {last ? (
            <>
              <Text className="text-xs text-voice">Last time</Text>
              <Text className="text-right font-mid text-sm">
                {lastReadingText(last, spec.decimals, crew ?? [])}
              </Text>
            </>
          ) : (
            <Text className="text-right text-sm text-voice">No earlier reading here</Text>
          )}
        </View>
      </View>
      {item.limit && <Band limit={item.limit} value={trouble ? undefined : value} />}
      {spec.feel && (
        <View className="flex-row gap-2" role="group" aria-label="How did the engine run?">
          {FEELS.map((f) => (
            <Button
              key={f.value}
              className={`flex-1 ${feel === f.value ? "bg-chock" : ""}`}
              pressed={feel === f.value}
              textClassName={`text-base ${feel === f.value ? "text-on-chock" : ""}`}
              onPress={() => setFeel(f.value)}
            >
              {f.words}
            </Button>
          ))}
        </View>
      )}
      {trouble && (
        <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2" testID="trouble">
          <Text className="font-mid text-clay">{trouble}</Text>
        </View>
      )}
      {tried && value === undefined && (
        <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2">
          <Text className="font-mid text-clay">Type what you read first.</Text>
        </View>
      )}
      {judged.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
    </View>
  );
}

/** The judgements that this number would lead to, before it is given. */
function preview(walk: Walk, item: Item, value: number, feel: EngineFeel | undefined) {
  const { reading } = item;
  if (!reading) return [];
  const state = {
    ...walk.state,
    readings: {
      ...walk.state.readings,
      [reading.key]: {
        eventId: "",
        itemId: item.id,
        at: "",
        value,
        unit: reading.unit,
        ...(feel && { feel }),
      },
    },
  };
  return judgePreflight(walk.list, state)
    .judgements.filter((j) => j.itemIds?.includes(item.id))
    .sort(
      (a, b) =>
        Number(b.id === reading.key) - Number(a.id === reading.key) ||
        GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade),
    );
}
