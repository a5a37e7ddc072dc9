import { canBeUndone, type EventHandler, reopenItem } from "../event-handler";

export const bladePulled: EventHandler<"blade.pulled"> = (preflight, event) => {
  const { itemId, blade } = event.data;
  preflight.own("blades")[itemId] = blade;
  reopenItem(preflight, itemId);
  canBeUndone(preflight, event);
};
