import { canBeUndone, type EventHandler, reopenItem } from "../event-handler";

/** Every drain must be sampled again. */
export const wingsRocked: EventHandler<"wings.rocked"> = (walk, event) => {
  walk.put({ rocked: { eventId: event.id, at: event.at } });
  const drains = Object.keys(walk.now.samples);
  for (const itemId of drains) delete walk.own("answers")[itemId];
  if (drains[0]) reopenItem(walk, drains[0]);
  canBeUndone(walk, event);
};
