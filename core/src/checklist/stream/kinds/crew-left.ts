import type { EventHandler } from "../event-handler";

export const crewLeft: EventHandler<"crew.left"> = (walk, { data }) => {
  walk.put({ joined: walk.now.joined.filter((crewId) => crewId !== data.crewId) });
};
