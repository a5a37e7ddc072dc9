import { answer, canBeUndone, type EventHandler } from "../event-handler";

export const discrepancyOpened: EventHandler<"discrepancy.opened"> = (walk, event) => {
  const { itemId, discrepancyId } = event.data;
  walk.own("discrepancies").push({ ...event.data, eventId: event.id, at: event.at });
  if (itemId) answer(walk, event, itemId, "found", { discrepancyId });
  else canBeUndone(walk, event, discrepancyId);
};
