import { View } from "react-native";
import { Button } from "./button";
import { Heading, Text } from "./text";

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
  return (
    <View className="gap-1.5" role="radiogroup" aria-label={title}>
      <Heading className="text-lg">{title}</Heading>
      <View className="flex-row flex-wrap gap-2">
        {options.map((option) => {
          const on = option === value;
          return (
            <Button
              key={option}
              pressed={on}
              className={`min-w-[30%] flex-1 ${on ? "bg-chock" : ""}`}
              textClassName={`text-base ${on ? "text-on-chock" : ""}`}
              onPress={() => onChange(option)}
            >
              {words(option)}
            </Button>
          );
        })}
      </View>
      {why && <Text className="text-sm text-voice">{why}</Text>}
    </View>
  );
}
