import { READING, readingKey } from "../../../readings/reading-keys";
import { canBeUndone, type EventHandler, reopenItem } from "../event-handler";

export const oilAdded: EventHandler<"oil.added"> = (walk, event) => {
  const { id: eventId, at, data } = event;
  const key = readingKey(READING.oilLevel, data.engine);
  const reading = walk.now.readings[key];
  const before = reading && { before: { value: reading.value, unit: reading.unit } };
  walk.put({ oilAdded: [...walk.now.oilAdded, { ...data, eventId, at, ...before }] });
  if (reading) {
    // The level has changed: wait, wipe, read again.
    delete walk.own("readings")[key];
    delete walk.own("answers")[reading.itemId];
    reopenItem(walk, reading.itemId);
  }
  canBeUndone(walk, event);
};
