import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { type Block, blockedBy } from "@cravix/core/ledger/blocked-by";
import { router } from "expo-router";
import { useMemo } from "react";
import { View } from "react-native";
import { Screen } from "../../../ui/frame/screen";
import { Button } from "../../../ui/input/button";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { type Acts, ItemBlocked, type LoadedPreflight } from "../../open-preflight";
import { SecondPersonPanel } from "../../pair";

/** What blocks the current item, if anything. */
export function useBlock({ list, state }: LoadedPreflight, item: Item): Block | undefined {
  return useMemo(() => blockedBy(list, state, item), [list, state, item]);
}

/** Shows what is open, where, and a way there. */
export function BlockedPanel({
  preflight,
  item,
  block,
  acts,
}: {
  preflight: LoadedPreflight;
  item: Item;
  block: Block;
  acts: Acts;
}) {
  if (block.kind === "second person")
    return <SecondPersonPanel preflight={preflight} item={item} why={block.why} acts={acts} />;
  return <OpenThings preflight={preflight} item={item} block={block} acts={acts} />;
}

function OpenThings({
  preflight,
  item,
  block,
  acts,
}: {
  preflight: LoadedPreflight;
  item: Item;
  block: Block;
  acts: Acts;
}) {
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
            {`Go to: ${first?.text ?? ""}`}
          </Button>
          <Button tone="deck" onPress={() => router.replace(`/preflight/${preflight.state.id}/verdict`)}>
            Cannot be closed: go to the verdict
          </Button>
        </>
      }
    >
      <ItemBlocked
        grade="stop"
        title={
          block.kind === "gate" ? "Not yet: something is still open" : "Not yet: another item comes first"
        }
        why={block.why}
        item={item}
      >
        <View className="gap-2">
          {block.open.map(({ text, itemId }) => (
            <Button key={itemId} textClassName="text-base text-left" onPress={() => acts.visit(itemId)}>
              {text}
            </Button>
          ))}
        </View>
      </ItemBlocked>
    </Screen>
  );
}
