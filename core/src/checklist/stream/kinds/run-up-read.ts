import { ONLY_ENGINE, READING } from "../../../readings/reading-keys";
import type { EventHandler } from "../event-handler";

export const runUpRead: EventHandler<"run-up.read"> = (walk, { id: eventId, at, crewId, data }) => {
  const { engine, densityAltitudeFt, itemId } = data;
  walk.own("runUps")[engine ?? ONLY_ENGINE] = { ...data, eventId, at };
  if (densityAltitudeFt === undefined) return;
  const reading = { eventId, itemId, at, value: densityAltitudeFt, unit: "ft" as const, crewId };
  walk.own("readings")[READING.densityAltitude] = reading;
};
