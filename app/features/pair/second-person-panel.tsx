import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { useCrew } from "../../store/server/server-state";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import { type Acts, ItemBlocked, type LoadedPreflight } from "../open-preflight";

/** Asks who the second person is, for items that need two. */
export function SecondPersonPanel({
  preflight,
  item,
  why,
  acts,
}: {
  preflight: LoadedPreflight;
  item: Item;
  why: string;
  acts: Acts;
}) {
  const crew = useCrew();
  const others = crew.filter((member) => member.id !== preflight.state.crewId);
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
            Postpone until a second person is here
          </Button>
        </>
      }
    >
      <ItemBlocked grade="ask" title="Second person needed" why={why} item={item} />
    </Screen>
  );
}
