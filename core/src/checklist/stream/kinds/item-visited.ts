import { type EventHandler, reopenItem } from "../act";

export const itemVisited: EventHandler<"item.visited"> = (walk, { data }) => reopenItem(walk, data.itemId);
