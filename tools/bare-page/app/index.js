import { Pressable, Text, View } from "react-native";
import Svg, { Circle } from "react-native-svg";
import { useDispatch, useSelector } from "react-redux";

// A single button: the minimum for a page with this stack.
export default function Bare() {
  const dispatch = useDispatch();
  const count = useSelector((state) => state.counter.count);
  return (
    <View className="h-full items-center justify-center">
      <Svg width={24} height={24} viewBox="0 0 24 24">
        <Circle cx={12} cy={12} r={8} />
      </Svg>
      <Pressable testID="primary" onPress={() => dispatch({ type: "counter/counted" })}>
        <Text className="text-xl">{count}</Text>
      </Pressable>
    </View>
  );
}
