import type { ReactNode } from "react";
import { Pressable, View } from "react-native";
import { Text } from "../text";

type Tone = "primary" | "deck" | "paper" | "bare-deck" | "bare";

// Default sizes are in global.css, so that a button's own classes override them.
const BOX: Record<Tone, string> = {
  primary: "button-primary",
  deck: "button-deck",
  paper: "button-paper",
  "bare-deck": "",
  bare: "",
};
const WORDS: Record<Tone, string> = {
  primary: "words-primary",
  deck: "words-deck",
  paper: "words-paper",
  "bare-deck": "words-bare-deck",
  bare: "words-bare",
};

export interface ButtonProps {
  children: ReactNode;
  onPress: () => void;
  tone?: Tone;
  /** Keyboard shortcut, shown on wide screens. */
  hint?: string | undefined;
  label?: string;
  className?: string;
  textClassName?: string;
  disabled?: boolean;
  pressed?: boolean;
  testID?: string;
}

/** A button for a gloved thumb: at least 56 pixels high. */
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
      className={`button active:opacity-70 ${BOX[tone]} ${disabled ? "opacity-60" : ""} ${className}`}
    >
      {typeof children === "string" ? (
        <Text className={`button-words ${WORDS[tone]} ${textClassName}`}>{children}</Text>
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
