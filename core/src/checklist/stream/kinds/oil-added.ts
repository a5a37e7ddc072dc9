import { READING, readingKey } from "../../../readings/reading-keys";
import { canBeUndone, type EventHandler, reopenItem } from "../event-handler";

export const oilAdded: EventHandler<"oil.added"> = (preflight, event) => {
  const { id: eventId, at, data } = event;
  const key = readingKey(READING.oilLevel, data.engine);
  const reading = preflight.now.readings[key];
  const before = reading && { before: { value: reading.value, unit: reading.unit } };
  preflight.put({ oilAdded: [...preflight.now.oilAdded, { ...data, eventId, at, ...before }] });
  if (reading) {
    // The level has changed: wait, wipe, read again.
    delete preflight.own("readings")[key];
    delete preflight.own("answers")[reading.itemId];
    reopenItem(preflight, reading.itemId);
  }
  canBeUndone(preflight, event);
};
