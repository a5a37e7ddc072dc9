import { answer, type EventHandler } from "../event-handler";

export const itemAnswered: EventHandler<"item.answered"> = (preflight, event) => {
  const { itemId, outcome, value, caught, byCrewId, card } = event.data;
  answer(preflight, event, itemId, outcome, {
    ...(value !== undefined && { value }),
    ...(caught && { caught }),
    ...(byCrewId && { byCrewId }),
    ...(card && { card }),
  });
};
