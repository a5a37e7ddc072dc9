import { useState } from "react";
import { Pressable, Text } from "react-native";

/** The least that a tap can cost in this build: what `npm run bench` measures the walk against. */
export function BarePressable() {
  const [count, setCount] = useState(0);
  return (
    <Pressable testID="bare" role="button" onPress={() => setCount(count + 1)}>
      <Text testID="bare-count">{count}</Text>
    </Pressable>
  );
}
