import { View } from "react-native";
import { Button } from "./button";

export const KEYPAD_KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"] as const;

/** Text after a key press. Always a possible start of a number with `decimals` places. */
export function pressKey(
  text: string,
  key: string,
  { decimals, negative }: { decimals: number; negative: boolean },
): string {
  if (key === "back") return text.slice(0, -1);
  if (key === "sign") return !negative ? text : text.startsWith("-") ? text.slice(1) : `-${text}`;
  if (key === ".")
    return decimals === 0 || text.includes(".")
      ? text
      : `${text === "" || text === "-" ? `${text}0` : text}.`;
  const next = text === "0" ? key : text === "-0" ? `-${key}` : text + key;
  if ((next.split(".")[1]?.length ?? 0) > decimals) return text;
  return next.replace(/[-.]/g, "").length > 6 ? text : next;
}

interface KeypadProps {
  decimals: number;
  negative: boolean;
  onKey: (key: string) => void;
}

/** Keypad with large keys for gloves, instead of the system keyboard. */
export function Keypad({ decimals, negative, onKey }: KeypadProps) {
  const key = (value: string, words = value, label?: string) => (
    <Button
      key={value}
      tone="deck"
      className="h-14 flex-1 px-0 py-0"
      textClassName="text-xl"
      onPress={() => onKey(value)}
      {...(label && { label })}
    >
      {words}
    </Button>
  );
  return (
    <View className="gap-1.5">
      {[0, 3, 6].map((row) => (
        <View key={row} className="flex-row gap-1.5">
          {KEYPAD_KEYS.slice(row, row + 3).map((digit) => key(digit))}
        </View>
      ))}
      <View className="flex-row gap-1.5">
        {decimals > 0 ? (
          key(".", ".", "Point")
        ) : negative ? (
          key("sign", "+/−", "Minus")
        ) : (
          <View className="flex-1" />
        )}
        {key("0")}
        {key("back", "Delete")}
      </View>
    </View>
  );
}
