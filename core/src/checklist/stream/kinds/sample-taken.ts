import { answer, canBeUndone, type EventHandler, reopenItem } from "../event-handler";

export const sampleTaken: EventHandler<"sample.taken"> = (walk, event) => {
  const { itemId, card, ...sample } = event.data;
  const taken = { ...sample, itemId, eventId: event.id, at: event.at };
  walk.own("samples")[itemId] = [...(walk.now.samples[itemId] ?? []), taken];
  if (sample.look === "clean") {
    answer(walk, event, itemId, "checked", { value: "clean", ...(card && { card }) });
    return;
  }
  // A sample that is not clean does not answer the item: the drain stays open.
  delete walk.own("answers")[itemId];
  reopenItem(walk, itemId);
  canBeUndone(walk, event);
};
