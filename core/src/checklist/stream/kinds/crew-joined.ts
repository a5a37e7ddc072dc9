import type { EventHandler } from "../act";

export const crewJoined: EventHandler<"crew.joined"> = (walk, { data: { crewId } }) => {
  if (!walk.now.joined.includes(crewId)) walk.own("joined").push(crewId);
};
