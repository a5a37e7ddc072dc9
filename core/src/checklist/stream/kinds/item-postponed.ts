import { canBeUndone, type EventHandler } from "../event-handler";

export const itemPostponed: EventHandler<"item.postponed"> = (walk, event) => {
  const { itemId } = event.data;
  if (!walk.now.postponed.includes(itemId)) walk.own("postponed").push(itemId);
  walk.put({ cursor: { itemId, visiting: false } });
  canBeUndone(walk, event);
};
