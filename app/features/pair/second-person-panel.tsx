import type { Item } from "@cravix/core";
import { View } from "react-native";
import { useAppSelector } from "../../store/hooks";
import { Button } from "../../ui/button";
import { GradeMark } from "../../ui/grade-mark";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { useShortcuts } from "../../ui/use-shortcuts";
import type { Acts } from "../walk/use-acts";
import type { Walk } from "../walk/use-preflight";

/** Nobody does this one alone: who is the other? */
export function SecondPersonPanel({
  walk,
  item,
  why,
  acts,
}: {
  walk: Walk;
  item: Item;
  why: string;
  acts: Acts;
}) {
  const crew = useAppSelector((state) => state.fleet.fleet?.crew ?? []);
  const others = crew.filter((member) => member.id !== walk.state.crewId);
  useShortcuts(
    Object.fromEntries([
      ...others.map((member, i) => [String(i + 1), () => acts.join(member.id)]),
      ["l", () => acts.later(item)],
    ]),
  );
  return (
    <Screen
      actions={
        <>
          {others.map((member) => (
            <Button key={member.id} tone="primary" onPress={() => acts.join(member.id)}>
              {`${member.name} is here`}
            </Button>
          ))}
          <Button tone="bare-deck" textClassName="text-sm" onPress={() => acts.later(item)}>
            Later, when somebody is
          </Button>
        </>
      }
    >
      <View testID="blocked" className="mt-6 gap-4">
        <View className="flex-row items-center gap-3">
          <GradeMark grade="ask" size={28} />
          <Heading level={1} className="shrink text-3xl">
            This takes two
          </Heading>
        </View>
        <Text className="text-lg">{why}</Text>
        <View>
          <Text className="text-sm text-voice">What waits for it</Text>
          <Text className="font-strong text-lg">{item.title}</Text>
        </View>
      </View>
    </Screen>
  );
}
