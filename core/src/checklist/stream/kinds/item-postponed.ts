import { canBeUndone, type EventHandler } from "../event-handler";

export const itemPostponed: EventHandler<"item.postponed"> = (preflight, event) => {
  const { itemId } = event.data;
  if (!preflight.now.postponed.includes(itemId)) preflight.own("postponed").push(itemId);
  preflight.put({ cursor: { itemId, visiting: false } });
  canBeUndone(preflight, event);
};
