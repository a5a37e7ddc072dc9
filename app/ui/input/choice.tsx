import { View } from "react-native";
import { Heading, Text } from "../text";
import { useWide } from "../use-wide";
import { Toggle } from "./toggle";

/** One of a few, each a target for a thumb, with the reason beneath. */
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
              // A thumb wants it large; on a wide screen nothing is wider than its words need.
              className={wide ? "px-5" : "min-w-[30%] flex-1"}
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
