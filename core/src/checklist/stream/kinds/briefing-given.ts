import type { EventHandler } from "../event-handler";

/** The last briefing of a kind counts; all stay on record. */
export const briefingGiven: EventHandler<"briefing.given"> = (walk, { id: eventId, at, crewId, data }) => {
  const others = walk.now.briefings.filter(({ to }) => to !== data.to);
  walk.put({ briefings: [...others, { ...data, eventId, at, crewId }] });
};
