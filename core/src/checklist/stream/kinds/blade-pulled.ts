import { canBeUndone, type EventHandler, reopenItem } from "../event-handler";

export const bladePulled: EventHandler<"blade.pulled"> = (walk, event) => {
  const { itemId, blade } = event.data;
  walk.own("blades")[itemId] = blade;
  reopenItem(walk, itemId);
  canBeUndone(walk, event);
};
