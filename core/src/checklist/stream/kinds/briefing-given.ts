import type { EventHandler } from "../event-handler";

/** The last briefing of a kind counts; all stay on record. */
export const briefingGiven: EventHandler<"briefing.given"> = (
  preflight,
  { id: eventId, at, crewId, data },
) => {
  const others = preflight.now.briefings.filter(({ to }) => to !== data.to);
  preflight.put({ briefings: [...others, { ...data, eventId, at, crewId }] });
};
