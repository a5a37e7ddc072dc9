import { ONLY_ENGINE, READING } from "../../../readings/reading-keys";
import type { EventHandler } from "../event-handler";

export const runUpRead: EventHandler<"run-up.read"> = (preflight, { id: eventId, at, crewId, data }) => {
  const { engine, densityAltitudeFt, itemId } = data;
  preflight.own("runUps")[engine ?? ONLY_ENGINE] = { ...data, eventId, at };
  if (densityAltitudeFt === undefined) return;
  const reading = { eventId, itemId, at, value: densityAltitudeFt, unit: "ft" as const, crewId };
  preflight.own("readings")[READING.densityAltitude] = reading;
};
