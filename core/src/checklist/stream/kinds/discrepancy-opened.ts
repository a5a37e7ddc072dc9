import { answer, canBeUndone, type EventHandler } from "../event-handler";

export const discrepancyOpened: EventHandler<"discrepancy.opened"> = (preflight, event) => {
  const { itemId, discrepancyId } = event.data;
  preflight.own("discrepancies").push({ ...event.data, eventId: event.id, at: event.at });
  if (itemId) answer(preflight, event, itemId, "found", { discrepancyId });
  else canBeUndone(preflight, event, discrepancyId);
};
