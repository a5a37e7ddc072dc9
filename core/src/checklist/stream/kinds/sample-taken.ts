import { answer, canBeUndone, type EventHandler, reopenItem } from "../event-handler";

export const sampleTaken: EventHandler<"sample.taken"> = (preflight, event) => {
  const { itemId, card, ...sample } = event.data;
  const taken = { ...sample, itemId, eventId: event.id, at: event.at };
  preflight.own("samples")[itemId] = [...(preflight.now.samples[itemId] ?? []), taken];
  if (sample.look === "clean") {
    answer(preflight, event, itemId, "checked", { value: "clean", ...(card && { card }) });
    return;
  }
  // A sample that is not clean does not answer the item: the drain stays open.
  delete preflight.own("answers")[itemId];
  reopenItem(preflight, itemId);
  canBeUndone(preflight, event);
};
