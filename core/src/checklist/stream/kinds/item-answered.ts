import { type Apply, answer } from "../act";

export const itemAnswered: Apply<"item.answered"> = (walk, event) => {
  const { itemId, outcome, value, caught, byCrewId, card } = event.data;
  answer(walk, event, itemId, outcome, {
    ...(value !== undefined && { value }),
    ...(caught && { caught }),
    ...(byCrewId && { byCrewId }),
    ...(card && { card }),
  });
};
