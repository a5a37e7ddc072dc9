import { type EventHandler, reopenItem } from "../event-handler";

export const itemVisited: EventHandler<"item.visited"> = (walk, { data }) => reopenItem(walk, data.itemId);
