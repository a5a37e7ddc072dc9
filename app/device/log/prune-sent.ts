import { deviceDatabase } from "./database";

const KEPT_MS = 14 * 24 * 3_600_000;
const AT_ONCE = 2000;

/**
 * Deletes preflights that were sent over two weeks ago, with their lists; never one that is open or has unsent events. Limited to
 * some thousand events at a time. Returns the number deleted.
 */
export async function pruneSent(open: ReadonlySet<string>, now: number): Promise<number> {
  const db = await deviceDatabase();
  const old = await db.getAllFromIndex("events", "bySentAt", IDBKeyRange.upperBound(now - KEPT_MS), AT_ONCE);
  const walks = [...new Set(old.map(({ streamId }) => streamId))].filter((id) => !open.has(id));
  let gone = 0;
  for (const id of walks) {
    const tx = db.transaction(["events", "lists"], "readwrite");
    const events = tx.objectStore("events");
    const kept = await events.index("byStream").getAll(id);
    if (kept.every(({ sync, sentAt = now }) => sync === "sent" && sentAt <= now - KEPT_MS)) {
      for (const { id: eventId } of kept) await events.delete(eventId);
      gone += kept.length;
      for (const { event } of kept)
        if (event.type === "preflight.started") {
          const list = await tx.objectStore("lists").get(event.data.listHash);
          if (list?.sent === 1) await tx.objectStore("lists").delete(list.hash);
        }
    }
    await tx.done;
  }
  return gone;
}
