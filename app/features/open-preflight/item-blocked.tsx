import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { Grade } from "@cravix/core/judgement/judgement";
import type { ReactNode } from "react";
import { View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { Heading, Text } from "../../ui/text";

/** Why an item must wait, and what would allow it. */
export function ItemBlocked({
  grade,
  title,
  why,
  item,
  children,
}: {
  grade: Grade;
  title: string;
  why: string;
  item: Item;
  children?: ReactNode;
}) {
  return (
    <View testID="blocked" className="mt-6 gap-4">
      <View className="flex-row items-center gap-3">
        <GradeMark grade={grade} size={28} />
        <Heading level={1} className="shrink text-3xl">
          {title}
        </Heading>
      </View>
      <Text className="text-lg">{why}</Text>
      {children}
      <View>
        <Text className="text-sm text-voice">Item that has to wait</Text>
        <Text className="font-strong text-lg">{item.title}</Text>
      </View>
    </View>
  );
}
