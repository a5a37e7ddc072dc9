import { canBeUndone, type EventHandler } from "../event-handler";

export const stationFlowed: EventHandler<"station.flowed"> = (preflight, event, _reading, before) => {
  const { id: eventId, at, data } = event;
  const seconds = Math.max(0, before ? (Date.parse(at) - Date.parse(before)) / 1000 : 0);
  preflight.own("flowed")[data.stationId] = { eventId, at, seconds };
  canBeUndone(preflight, event);
};
