import { type EventHandler, reopenItem } from "../event-handler";

export const itemVisited: EventHandler<"item.visited"> = (preflight, { data }) =>
  reopenItem(preflight, data.itemId);
