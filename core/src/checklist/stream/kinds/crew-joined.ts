import type { EventHandler } from "../event-handler";

export const crewJoined: EventHandler<"crew.joined"> = (walk, { data: { crewId } }) => {
  if (!walk.now.joined.includes(crewId)) walk.own("joined").push(crewId);
};
