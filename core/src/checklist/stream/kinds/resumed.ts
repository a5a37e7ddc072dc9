import type { EventHandler } from "../event-handler";

/** Ends the latest open interruption. */
export const resumed: EventHandler<"resumed"> = (preflight, { at, data: { way } }) => {
  const { interruptions } = preflight.now;
  const open = interruptions.findLastIndex((one) => one.resumedAt === undefined);
  if (open < 0) return;
  const end = (one: (typeof interruptions)[number]) => ({ ...one, resumedAt: at, ...(way && { way }) });
  preflight.put({ interruptions: interruptions.map((one, i) => (i === open ? end(one) : one)) });
};
