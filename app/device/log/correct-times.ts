import { deviceDatabase } from "./database";

/**
 * Puts right the times of answers that were refused for lying in the future, and puts them back in the queue. `aheadMs` is how far this device's
 * clock is ahead of the server's; where the clock was set right since, the newest of them is taken to be of now. What the clock said stays on
 * record with each. Returns the walks that changed.
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
