import type { ReactNode } from "react";
import { Pressable, View } from "react-native";
import { twMerge } from "tailwind-merge";
import { Text } from "../text";

type Tone = "primary" | "deck" | "paper" | "bare-deck" | "bare";

const BOX: Record<Tone, string> = {
  primary: "bg-chock border-2 border-chock",
  deck: "border-2 border-deck-ink",
  paper: "border-2 border-ink bg-paper",
  "bare-deck": "",
  bare: "",
};
const WORDS: Record<Tone, string> = {
  primary: "text-on-chock font-strong",
  deck: "text-deck-ink font-strong",
  paper: "text-ink font-strong",
  "bare-deck": "text-deck-ink font-mid",
  bare: "text-ink font-mid underline",
};

export interface ButtonProps {
  children: ReactNode;
  onPress: () => void;
  tone?: Tone;
  /** The key of a real keyboard that does the same, shown on wide screens. */
  hint?: string | undefined;
  label?: string;
  className?: string;
  textClassName?: string;
  disabled?: boolean;
  pressed?: boolean;
  testID?: string;
}

/** A target for a gloved thumb: never under 56 pixels high. */
export function Button({
  children,
  onPress,
  tone = "paper",
  hint,
  label,
  className = "",
  textClassName = "text-lg",
  disabled = false,
  pressed,
  testID,
}: ButtonProps) {
  return (
    <Pressable
      role="button"
      aria-label={label}
      aria-pressed={pressed}
      aria-disabled={disabled || undefined}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      className={twMerge(
        "min-h-14 items-center justify-center rounded-xl px-3 py-2 active:opacity-70",
        BOX[tone],
        disabled && "opacity-60",
        className,
      )}
    >
      {typeof children === "string" ? (
        <Text className={`text-center ${WORDS[tone]} ${textClassName}`}>{children}</Text>
      ) : (
        children
      )}
      {hint ? (
        <View className="absolute bottom-0.5 right-2" aria-hidden>
          <Text className={`text-xs ${WORDS[tone]}`}>{hint}</Text>
        </View>
      ) : null}
    </Pressable>
  );
}
