import { answer, type EventHandler } from "../event-handler";

export const readingTaken: EventHandler<"reading.taken"> = (walk, event) => {
  const { itemId, key, value, unit, feel, heat, from, card } = event.data;
  answer(walk, event, itemId, "checked", { value: String(value), ...(card && { card }) });
  walk.own("readings")[key] = {
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
