import { type Apply, goTo } from "../act";

export const itemVisited: Apply<"item.visited"> = (walk, { data }) => goTo(walk, data.itemId);
