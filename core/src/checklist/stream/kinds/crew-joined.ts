import type { EventHandler } from "../event-handler";

export const crewJoined: EventHandler<"crew.joined"> = (preflight, { data: { crewId } }) => {
  if (!preflight.now.joined.includes(crewId)) preflight.own("joined").push(crewId);
};
