import { readBack, spokenNumber } from "@cravix/core/run-up";
import { type RunUpEngine, sideNames } from "@cravix/core/run-up-entry";
import { QuantityError } from "@cravix/core/units/convert";
import { capital, formatNumber } from "@cravix/core/units/format";
import { assertPlausible } from "@cravix/core/units/plausible";
import { useEffect, useRef, useState } from "react";
import { View } from "react-native";
import { usePersistedState } from "../../../device/log/use-persisted-state";
import { canHear, hear } from "../../../device/platform/hear";
import { speak, speakThen } from "../../../device/platform/speech";
import { Alert } from "../../../ui/alert";
import { Button } from "../../../ui/input/button";
import { Keypad, pressKey } from "../../../ui/input/keypad";
import { Toggle } from "../../../ui/input/toggle";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { Text } from "../../../ui/text";
import { useWide } from "../../../ui/use-wide";

const FIELDS = ["base", "first", "both", "other", "both again"] as const;
type Field = (typeof FIELDS)[number];
const NOTHING = FIELDS.map(() => "");

export interface TypedNumbers {
  base: number;
  right?: number;
  left?: number;
  /** Rpm back on both after each side. */
  back: (number | undefined)[];
}

/** Base, one side, both, other side, both: five numbers on large keys, or spoken and read back. */
export function ManualRunUpEntry({
  engine,
  draft,
  known,
  onDone,
}: {
  engine: RunUpEngine;
  /** Draft key. */
  draft: string;
  /** Values already read from a trace. */
  known?: readonly (number | undefined)[] | undefined;
  onDone: (numbers: TypedNumbers) => void;
}) {
  const { profile } = engine;
  const wide = useWide();
  const words = sideNames(profile);
  const first = profile.firstSide;
  const other = first === "right" ? "left" : "right";
  const name: Record<Field, string> = {
    base: "On both",
    first: words[first],
    both: "Both",
    other: words[other],
    "both again": "Both",
  };
  const {
    value: texts,
    change: setTexts,
    drop,
  } = usePersistedState<string[]>(draft, known ? FIELDS.map((_, i) => String(known[i] ?? "")) : NOTHING);
  // The first value still missing.
  const [at, setAt] = useState(() => Math.max(0, known?.slice(0, FIELDS.length).indexOf(undefined) ?? 0));
  const [problem, setProblem] = useState<string>();
  const [listening, setListening] = useState(false);
  const stop = useRef<(() => void) | undefined>(undefined);
  useEffect(() => () => stop.current?.(), []);
  const digits = String(profile.rpm).length;
  const put = (text: string, index = at) => {
    setProblem(undefined);
    setTexts((before) => before.map((value, i) => (i === index ? text : value)));
  };
  const check = (text: string): boolean => {
    try {
      assertPlausible("Rpm", Number(text), "rpm", engine.baseItem.reading?.plausible);
      return true;
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      setProblem(error.message);
      return false;
    }
  };
  const next = (index: number, text: string) => {
    if (text !== "" && !check(text)) return;
    if (index < FIELDS.length - 1) setAt(index + 1);
  };
  const onKey = (key: string) => {
    const text = pressKey(texts[at] ?? "", key, { decimals: 0, negative: false });
    put(text);
    // A complete number moves on automatically; a shorter one with Next.
    if (key !== "back" && text.length === digits && at < FIELDS.length - 1) next(at, text);
  };
  const done = () => {
    const numbers = texts.map((text) => (text === "" ? undefined : Number(text)));
    const [base, one, back1, two, back2] = numbers;
    if (base === undefined || base === 0) {
      setAt(0);
      setProblem("Enter the rpm on both first: the drops are calculated from it.");
      return;
    }
    if (one === undefined && two === undefined) {
      setAt(1);
      setProblem("Enter the rpm on at least one magneto.");
      return;
    }
    if (texts.some((text) => text !== "" && !check(text))) return;
    onDone({
      base,
      ...(one !== undefined && { [first]: one }),
      ...(two !== undefined && { [other]: two }),
      back: [back1, back2],
    });
    drop();
  };
  useShortcuts({
    ...Object.fromEntries([..."0123456789"].map((digit) => [digit, () => onKey(digit)])),
    Backspace: () => onKey("back"),
    Enter: () => (at < FIELDS.length - 1 && texts[at] !== "" ? next(at, texts[at] ?? "") : done()),
  });
  const listen = () => {
    setListening(true);
    setProblem(undefined);
    let index = at;
    let told = "";
    let left = false;
    const end = () => setListening(false);
    const again = () => {
      const question = `${told}${name[FIELDS[index] as Field]}?`;
      told = "";
      // Listen only after speaking, or it would hear itself.
      speakThen(question, () => {
        if (left) return;
        stop.current = hear(
          (said) => take(said),
          () => {
            setProblem("Nothing heard. Say it again, or use the keys.");
            end();
          },
        );
      });
    };
    const take = (said: string) => {
      const number = spokenNumber(said);
      if (number === undefined) {
        setProblem(`Heard “${said}”, which is not a number. Say it again.`);
        told = "Again. ";
        again();
        return;
      }
      const text = String(Math.round(number));
      if (!check(text)) {
        told = `${readBack(number)} is not plausible. `;
        again();
        return;
      }
      setProblem(undefined);
      put(text, index);
      told = `${readBack(number)}. `;
      index++;
      if (index >= FIELDS.length) {
        speak(told);
        end();
        return;
      }
      setAt(index);
      again();
    };
    stop.current = () => {
      left = true;
    };
    again();
  };
  return (
    <View className={wide ? "flex-row gap-6" : "gap-3"}>
      <View className={wide ? "flex-1 gap-1.5" : "gap-1.5"}>
        {FIELDS.map((field, i) => (
          <Toggle
            key={field}
            on={at === i}
            className="flex-row justify-between px-4"
            onPress={() => setAt(i)}
            testID={`field-${i}`}
          >
            <Text className={`text-lg ${at === i ? "text-on-chock" : ""}`}>{capital(name[field])}</Text>
            <Text className={`font-strong text-2xl ${at === i ? "text-on-chock" : ""}`}>
              {texts[i] === "" ? "–" : formatNumber(Number(texts[i]))}
            </Text>
          </Toggle>
        ))}
      </View>
      <View className={wide ? "flex-1 gap-3" : "gap-3"}>
        {problem && (
          <Alert frame="box" testID="trouble">
            {problem}
          </Alert>
        )}
        <View className="rounded-2xl bg-deck p-3">
          <Keypad decimals={0} negative={false} onKey={onKey} />
        </View>
        <View className="flex-row gap-2">
          {canHear() && (
            <Button className="flex-1" pressed={listening} onPress={listen}>
              {listening ? "Listening …" : "Speak the numbers"}
            </Button>
          )}
          <Button
            tone="primary"
            className="min-h-16 flex-[2]"
            textClassName="text-xl"
            onPress={done}
            testID="typed-done"
          >
            Done
          </Button>
        </View>
        {!canHear() && (
          <Text className="text-sm text-voice">
            Voice input does not work in this browser: use the keys or the engine monitor.
          </Text>
        )}
      </View>
    </View>
  );
}
