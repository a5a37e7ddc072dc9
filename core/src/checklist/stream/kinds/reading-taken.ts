import { answer, type EventHandler } from "../event-handler";

export const readingTaken: EventHandler<"reading.taken"> = (preflight, event) => {
  const { itemId, key, value, unit, feel, heat, from, card } = event.data;
  answer(preflight, event, itemId, "checked", { value: String(value), ...(card && { card }) });
  preflight.own("readings")[key] = {
    eventId: event.id,
    itemId,
    at: event.at,
    value,
    unit,
    crewId: event.crewId,
    ...(feel && { feel }),
    ...(heat && { heat }),
    ...(from && { from }),
  };
};
