import type { EventHandler } from "../event-handler";

export const crewLeft: EventHandler<"crew.left"> = (preflight, { data }) => {
  preflight.put({ joined: preflight.now.joined.filter((crewId) => crewId !== data.crewId) });
};
