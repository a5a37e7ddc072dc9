import { View } from "react-native";
import { Heading, Text } from "../text";
import { useWide } from "../use-wide";
import { Toggle } from "./toggle";

/** Choice of a few options, with the reason below. */
export function Choice<T extends string>({
  title,
  options,
  value,
  onChange,
  why,
  words = (option) => option,
}: {
  title: string;
  options: readonly T[];
  value: T | undefined;
  onChange: (option: T) => void;
  why?: string | undefined;
  words?: (option: T) => string;
}) {
  const wide = useWide();
  return (
    <View className="gap-1.5" role="radiogroup" aria-label={title}>
      <Heading className="text-lg">{title}</Heading>
      <View className="flex-row flex-wrap gap-2">
        {options.map((option) => {
          const on = option === value;
          return (
            <Toggle
              key={option}
              on={on}
              // Large on a phone, and never narrower than its longest word; no wider than its text on a wide screen.
              className={wide ? "px-5" : "min-w-[30%] grow px-3"}
              onPress={() => onChange(option)}
            >
              {words(option)}
            </Toggle>
          );
        })}
      </View>
      {why && <Text className="text-sm text-voice">{why}</Text>}
    </View>
  );
}
