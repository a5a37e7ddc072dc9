import type { Apply } from "../act";

export const crewLeft: Apply<"crew.left"> = (walk, { data }) => {
  walk.put({ joined: walk.now.joined.filter((crewId) => crewId !== data.crewId) });
};
