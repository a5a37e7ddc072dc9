import type { EventHandler } from "../event-handler";

export const interrupted: EventHandler<"interrupted"> = (walk, { at, data: { itemId, cause, since } }) => {
  const one = { at, ...(itemId && { itemId }), ...(cause && { cause }), ...(since && { since }) };
  walk.put({ interruptions: [...walk.now.interruptions, one] });
};
