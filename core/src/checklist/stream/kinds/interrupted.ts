import type { EventHandler } from "../event-handler";

export const interrupted: EventHandler<"interrupted"> = (
  preflight,
  { at, data: { itemId, cause, since } },
) => {
  const one = { at, ...(itemId && { itemId }), ...(cause && { cause }), ...(since && { since }) };
  preflight.put({ interruptions: [...preflight.now.interruptions, one] });
};
