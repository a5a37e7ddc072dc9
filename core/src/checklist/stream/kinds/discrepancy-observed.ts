import { answer, type EventHandler } from "../event-handler";

/** The last observation counts. */
export const discrepancyObserved: EventHandler<"discrepancy.observed"> = (walk, event) => {
  const { itemId, state, measure, discrepancyId } = event.data;
  const others = walk.now.observations.filter((one) => one.discrepancyId !== discrepancyId);
  walk.put({ observations: [...others, { ...event.data, eventId: event.id, at: event.at }] });
  answer(walk, event, itemId, state, measure === undefined ? {} : { value: measure });
};
