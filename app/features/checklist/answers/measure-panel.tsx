import type { AircraftBundle } from "@cravix/contract/client";
import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { EngineFeel } from "@cravix/core/engine/classify-drop";
import { litresByReading } from "@cravix/core/fuel/tanks/tank";
import { volumeFromDip } from "@cravix/core/fuel/tanks/volume-from-dip";
import { GRADES, type Judgement } from "@cravix/core/judgement/judgement";
import type { OilHeat } from "@cravix/core/oil/judge-oil";
import { type Expected, leadingDigits, typedNumber, typedText } from "@cravix/core/readings/leading-digits";
import { isReadingOf, READING, tankKey } from "@cravix/core/readings/reading-keys";
import { QuantityError } from "@cravix/core/units/convert";
import { formatNumber } from "@cravix/core/units/format";
import { assertPlausible } from "@cravix/core/units/plausible";
import { Z_95_TWO_SIDED } from "@cravix/core/units/uncertain";
import { judgePreflight } from "@cravix/core/verdict/judge-preflight";
import { quantityError, wordsOfWalk } from "@cravix/core/verdict/judges/fuel-input";
import { useState } from "react";
import { View } from "react-native";
import { useBundle, useCrew } from "../../../store/server/server-state";
import { Alert } from "../../../ui/alert";
import { Band } from "../../../ui/band";
import { GradeMark } from "../../../ui/grade-mark";
import { pressKey } from "../../../ui/input/keypad";
import { Toggle } from "../../../ui/input/toggle";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { JudgementCard } from "../../../ui/judgement-card";
import { lastReadingText } from "../../../ui/last-reading-text";
import { Text } from "../../../ui/text";
import { useWide } from "../../../ui/use-wide";
import { drawnReading, ReadingDrawing } from "../../fluids";
import type { HowRead, LoadedPreflight } from "../../open-preflight";

const FEELS: { value: EngineFeel; words: string }[] = [
  { value: "smooth", words: "Smooth" },
  { value: "rough", words: "Rough" },
  { value: "quit", words: "It quit" },
];

const HEATS: { value: OilHeat; words: string }[] = [
  { value: "cold", words: "Cold" },
  { value: "hot", words: "Hot" },
];

interface Entry {
  itemId: string;
  text: string;
  feel?: EngineFeel | undefined;
  heat?: OilHeat | undefined;
  tried: boolean;
  /** Leading digits deleted: the whole number is entered. */
  whole?: boolean | undefined;
}

/** State of a number being entered, with its fault or provisional judgement. */
export function useMeasure(
  preflight: LoadedPreflight,
  item: Item,
  active: boolean,
  onDone: (value: number, how: HowRead) => void,
) {
  const [entry, setEntry] = useState<Entry>({ itemId: item.id, text: "", tried: false });
  // A number entered for another item is not shown.
  const { text, feel, heat, tried, whole } =
    entry.itemId === item.id
      ? entry
      : { text: "", feel: undefined, heat: undefined, tried: false, whole: undefined };
  const bundle = useBundle(preflight.list.registration);
  const expected = whole ? undefined : expectedFor(preflight, bundle, item);
  const change = (part: Partial<Entry>) =>
    setEntry({ itemId: item.id, text, feel, heat, whole, tried: false, ...part });
  const how: HowRead = { ...(feel && { feel }), ...(heat && { heat }) };
  const spec = item.reading;
  const negative = (spec?.plausible?.min ?? 0) < 0;
  const quit = spec?.feel && feel === "quit";
  const value = quit ? 0 : typedNumber(text, expected);
  const problem = value === undefined ? undefined : inputError(preflight, item, value);
  const onKey = (key: string) =>
    key === "back" && text === ""
      ? change({ whole: true })
      : change({ text: pressKey(text, key, { decimals: spec?.decimals ?? 0, negative }) });
  const done = () => {
    change({ tried: true });
    if (value !== undefined && !problem) onDone(value, how);
  };
  // While logging, keys must not enter numbers.
  useShortcuts(
    !active || item.kind !== "measure"
      ? {}
      : {
          ...Object.fromEntries([..."0123456789."].map((digit) => [digit, () => onKey(digit)])),
          "-": () => onKey("sign"),
          Backspace: () => onKey("back"),
          Enter: done,
        },
  );
  return {
    text,
    shown: typedText(text, expected),
    value,
    problem,
    tried,
    feel,
    how,
    setHeat: (next: OilHeat) => change({ heat: next }),
    setValue: (next: number) => change({ text: String(next) }),
    setFeel: (next: EngineFeel) => change({ feel: next }),
    onKey,
    done,
    negative,
    decimals: spec?.decimals ?? 0,
  };
}

/** Expected range of this number, unless leading digits were deleted: from the run-up rpm, else from the last reading. */
export function expectedFor(
  preflight: LoadedPreflight,
  bundle: AircraftBundle | undefined,
  item: Item,
): Expected | undefined {
  const { reading } = item;
  if (!reading) return undefined;
  const before =
    reading.unit === "rpm" && isReadingOf(reading.key, READING.magnetoRight, READING.magnetoLeft)
      ? preflight.state.readings[baseKeyOf(preflight, item)]
      : undefined;
  const last = before ?? bundle?.lastReadings.find((r) => r.key === reading.key);
  return last && last.unit === reading.unit ? leadingDigits(reading, last.value) : undefined;
}

/** Run-up rpm read at the same station. */
function baseKeyOf({ list }: LoadedPreflight, { station }: Item): string {
  const base = list.items.find(
    (one) => one.station === station && one.reading && isReadingOf(one.reading.key, READING.magnetoBase),
  );
  return base?.reading?.key ?? READING.magnetoBase;
}

export type Measure = ReturnType<typeof useMeasure>;

/** Why a number is not possible; it stays on the screen for correction. */
export function inputError(preflight: LoadedPreflight, item: Item, value: number): string | undefined {
  const { reading } = item;
  if (!reading) return undefined;
  try {
    assertPlausible(item.title, value, reading.unit, reading.plausible);
    const tank = preflight.list.type.fuel?.tanks.find((t) => tankKey("dip", t.id) === reading.key);
    if (tank?.calibration) volumeFromDip(tank.calibration, value);
    if (reading.key === READING.hours) {
      const last = preflight.list.memory?.hours;
      // Lower than last time is possible (a replaced meter), but queried first.
      if (last && value < last.value / 2)
        return `${formatNumber(value, 1)} h is far below the last ${formatNumber(last.value, 1)}: read the meter again.`;
    }
    return undefined;
  } catch (error) {
    if (error instanceof QuantityError) return error.message;
    throw error;
  }
}

/** The entered number, last reading, limits, and judgement. */
export function MeasurePanel({
  preflight,
  item,
  measure,
}: {
  preflight: LoadedPreflight;
  item: Item;
  measure: Measure;
}) {
  const bundle = useBundle(preflight.list.registration);
  const crew = useCrew();
  const wide = useWide();
  const { shown, value, problem, tried, feel, setFeel, how, setHeat } = measure;
  const spec = item.reading;
  if (!spec) return null;
  const last = bundle?.lastReadings.find((r) => r.key === spec.key);
  const judged = value === undefined || problem ? [] : preview(preflight, item, value, how);
  const drawn = drawnReading(preflight, item);
  const typed = (
    <View className="flex-row items-end gap-2 self-start border-b-4 border-ink pr-3" testID="typed">
      <Text className="font-strong text-3xl">
        {shown.start !== "" && feel !== "quit" && <Text className="text-3xl text-voice">{shown.start}</Text>}
        {feel === "quit" && spec.feel ? "0" : shown.rest.replace("-", "−") || "–"}
      </Text>
      <Text className="pb-1 font-mid text-lg text-voice">{spec.unit}</Text>
    </View>
  );
  const before = (
    <View className={`shrink ${drawn ? "" : "items-end"}`}>
      {last ? (
        <>
          <Text className="text-xs text-voice">Last time</Text>
          <Text className={`font-mid text-sm ${drawn ? "" : "text-right"}`}>
            {lastReadingText(last, spec.decimals, crew)}
          </Text>
        </>
      ) : (
        <Text className="text-sm text-voice">No earlier reading here</Text>
      )}
    </View>
  );
  return (
    <View className="gap-2">
      {drawn ? (
        <View className="flex-row items-start gap-3">
          {!wide && (
            <ReadingDrawing
              preflight={preflight}
              item={item}
              value={value}
              lastValue={last?.value}
              onSet={measure.setValue}
            />
          )}
          <View className="min-w-0 flex-1 gap-2">
            {typed}
            <ComesTo preflight={preflight} item={item} value={problem ? undefined : value} judged={judged} />
            {before}
            {drawn.kind === "oil" && (
              <View className="flex-row gap-2" role="group" aria-label="Is the engine hot or cold?">
                {HEATS.map((h) => (
                  <Toggle
                    key={h.value}
                    className="flex-1 px-1"
                    on={how.heat === h.value}
                    onPress={() => setHeat(h.value)}
                  >
                    {h.words}
                  </Toggle>
                ))}
              </View>
            )}
          </View>
        </View>
      ) : (
        <View className="flex-row items-end justify-between">
          {typed}
          {before}
        </View>
      )}
      {item.limit && <Band limit={item.limit} value={problem ? undefined : value} />}
      {spec.feel && (
        <View className="flex-row gap-2" role="group" aria-label="How did the engine run?">
          {FEELS.map((f) => (
            <Toggle key={f.value} className="flex-1" on={feel === f.value} onPress={() => setFeel(f.value)}>
              {f.words}
            </Toggle>
          ))}
        </View>
      )}
      {problem && (
        <Alert frame="box" testID="trouble">
          {problem}
        </Alert>
      )}
      {tried && value === undefined && <Alert frame="box">Enter the reading first.</Alert>}
      {judged.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
    </View>
  );
}

/** Interpretation of the number: litres in the tank, or the oil level. */
function ComesTo({
  preflight,
  item,
  value,
  judged,
}: {
  preflight: LoadedPreflight;
  item: Item;
  value: number | undefined;
  judged: Judgement[];
}) {
  const drawn = drawnReading(preflight, item);
  if (!drawn || value === undefined) return null;
  if (drawn.kind === "oil") {
    const level = judged.find((j) => j.judge === "oil.level");
    if (!level) return null;
    return (
      <View className="flex-row items-center gap-2">
        <View className="shrink-0">
          <GradeMark grade={level.grade} size={20} />
        </View>
        <Text className={`shrink font-mid ${level.grade === "stop" ? "text-clay" : ""}`}>
          {level.sentence}
        </Text>
      </View>
    );
  }
  const reading = { tankId: drawn.tank.id, by: drawn.kind, value } as const;
  const problem = quantityError(() => litresByReading(drawn.tank, reading, preflight.state.told.tilt));
  if (problem) return <Text className="text-sm text-clay">{problem}</Text>;
  const litres = litresByReading(drawn.tank, reading, preflight.state.told.tilt);
  const reach = Z_95_TWO_SIDED * litres.sigma;
  const words = wordsOfWalk(preflight.list, preflight.state);
  return (
    <Text className="font-strong text-lg" testID="litres-preview">
      {words.say(litres.value)}
      <Text className="text-sm text-voice">{`  ± ${words.number(reach)}`}</Text>
    </Text>
  );
}

/** Provisional judgements of this number. */
export function preview(preflight: LoadedPreflight, item: Item, value: number, how: HowRead) {
  const { reading } = item;
  if (!reading) return [];
  const state = {
    ...preflight.state,
    readings: {
      ...preflight.state.readings,
      [reading.key]: {
        eventId: "",
        itemId: item.id,
        at: "",
        crewId: preflight.state.crewId ?? "",
        value,
        unit: reading.unit,
        ...how,
      },
    },
  };
  return judgePreflight(preflight.list, state)
    .judgements.filter((j) => j.itemIds?.includes(item.id))
    .sort(
      (a, b) =>
        Number(b.id === reading.key) - Number(a.id === reading.key) ||
        GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade),
    );
}
