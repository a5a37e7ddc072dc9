import { deviceDatabase } from "./database";

/**
 * Corrects the times of events rejected as being in the future, and queues them again. `aheadMs` is how far this device's clock
 * is ahead of the server's; if the clock was corrected since, the newest event is taken as now. The original device time is
 * recorded. Returns the preflights that changed.
 */
export async function correctTimes(now: number, aheadMs: number): Promise<string[]> {
  const tx = (await deviceDatabase()).transaction("events", "readwrite");
  const late = (await tx.store.index("bySync").getAll("refused")).filter(({ field }) => field === "at");
  const newest = Math.max(...late.map(({ event }) => Date.parse(event.at)));
  const shift = Math.max(aheadMs, newest - (now - Math.max(0, aheadMs)));
  for (const { event, id, streamId } of late) {
    const at = new Date(Date.parse(event.at) - shift).toISOString();
    const corrected = { ...event, at, deviceAt: event.deviceAt ?? event.at };
    await tx.store.put({ event: corrected, id, streamId, sync: "to send" });
  }
  await tx.done;
  return [...new Set(late.map(({ streamId }) => streamId))];
}
