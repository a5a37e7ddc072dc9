import { canBeUndone, type EventHandler, reopenItem } from "../event-handler";

/** Every drain must be sampled again. */
export const wingsRocked: EventHandler<"wings.rocked"> = (preflight, event) => {
  preflight.put({ rocked: { eventId: event.id, at: event.at } });
  const drains = Object.keys(preflight.now.samples);
  for (const itemId of drains) delete preflight.own("answers")[itemId];
  if (drains[0]) reopenItem(preflight, drains[0]);
  canBeUndone(preflight, event);
};
