import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { FoundPanel, useFoundDraft } from "./found-panel";
import type { Acts } from "./use-preflight-actions";
import { WritingFrame } from "./writing-frame";

/** Logs a problem found at one item. */
export function FoundStep({
  walkId,
  item,
  preset,
  onBack,
  acts,
}: {
  walkId: string;
  item: Item;
  preset: string | undefined;
  onBack: () => void;
  acts: Pick<Acts, "found">;
}) {
  const found = useFoundDraft(walkId, item, preset);
  const { draft } = found;
  const log = () => {
    const measure = draft.measure.trim();
    acts.found(item, draft.text.trim(), draft.grade, {
      ...(measure && { measure }),
      ...(draft.photographs && { photographs: draft.photographs }),
    });
    found.drop();
    // After a withdrawal the item is asked again.
    onBack();
  };
  return (
    <WritingFrame onBack={onBack} onLog={log} disabled={draft.text.trim() === ""}>
      <FoundPanel found={found} item={item} />
    </WritingFrame>
  );
}
