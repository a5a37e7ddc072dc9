import { type Block, blockedBy, type Item } from "@cravix/core";
import { router } from "expo-router";
import { useMemo } from "react";
import { View } from "react-native";
import { Button } from "../../ui/button";
import { GradeMark } from "../../ui/grade-mark";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { useShortcuts } from "../../ui/use-shortcuts";
import { SecondPersonPanel } from "../pair/second-person-panel";
import type { Acts } from "./use-acts";
import type { Walk } from "./use-preflight";

/** What stands in the way of the item on the screen, while it does. */
export function useBlock({ list, state }: Walk, item: Item): Block | undefined {
  return useMemo(() => blockedBy(list, state, item), [list, state, item]);
}

/** Not yet: what is open, where it stands on the aircraft, and the way there. */
export function BlockedPanel({
  walk,
  item,
  block,
  acts,
}: {
  walk: Walk;
  item: Item;
  block: Block;
  acts: Acts;
}) {
  if (block.kind === "second person")
    return <SecondPersonPanel walk={walk} item={item} why={block.why} acts={acts} />;
  return <OpenThings walk={walk} item={item} block={block} acts={acts} />;
}

function OpenThings({ walk, item, block, acts }: { walk: Walk; item: Item; block: Block; acts: Acts }) {
  const [first] = block.open;
  const goFirst = () => first && acts.visit(first.itemId);
  useShortcuts({ Enter: goFirst });
  return (
    <Screen
      actions={
        <>
          <Button
            tone="primary"
            className="min-h-24"
            textClassName="text-xl"
            testID="primary"
            onPress={goFirst}
          >
            {`Go to it: ${first?.text ?? ""}`}
          </Button>
          <Button tone="deck" onPress={() => router.replace(`/preflight/${walk.state.id}/verdict`)}>
            It cannot be closed: to the verdict
          </Button>
        </>
      }
    >
      <View testID="blocked" className="mt-6 gap-4">
        <View className="flex-row items-center gap-3">
          <GradeMark grade="stop" size={28} />
          <Heading level={1} className="shrink text-3xl">
            {block.kind === "gate" ? "Not yet: something is open" : "Not yet: first the other"}
          </Heading>
        </View>
        <Text className="text-lg">{block.why}</Text>
        <View className="gap-2">
          {block.open.map(({ text, itemId }) => (
            <Button key={itemId} textClassName="text-base text-left" onPress={() => acts.visit(itemId)}>
              {text}
            </Button>
          ))}
        </View>
        <View>
          <Text className="text-sm text-voice">What waits for it</Text>
          <Text className="font-strong text-lg">{item.title}</Text>
        </View>
      </View>
    </Screen>
  );
}
