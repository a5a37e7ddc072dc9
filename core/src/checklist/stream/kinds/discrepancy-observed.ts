import { answer, type EventHandler } from "../event-handler";

/** The last observation counts. */
export const discrepancyObserved: EventHandler<"discrepancy.observed"> = (preflight, event) => {
  const { itemId, state, measure, discrepancyId } = event.data;
  const others = preflight.now.observations.filter((one) => one.discrepancyId !== discrepancyId);
  preflight.put({ observations: [...others, { ...event.data, eventId: event.id, at: event.at }] });
  answer(preflight, event, itemId, state, measure === undefined ? {} : { value: measure });
};
