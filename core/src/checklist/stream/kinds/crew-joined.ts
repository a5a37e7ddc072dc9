import type { Apply } from "../act";

export const crewJoined: Apply<"crew.joined"> = (walk, { data: { crewId } }) => {
  if (!walk.now.joined.includes(crewId)) walk.own("joined").push(crewId);
};
