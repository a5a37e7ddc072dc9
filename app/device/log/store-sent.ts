import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { deviceDatabase, type KeptList } from "./database";

/** Stores a preflight received from the server that was started on another device. */
export async function saveSent(events: readonly PreflightEvent[], list?: KeptList): Promise<void> {
  const tx = (await deviceDatabase()).transaction(["events", "lists"], "readwrite");
  const store = tx.objectStore("events");
  for (const event of events)
    if (!(await store.getKey(event.id)))
      await store.put({
        event,
        id: event.id,
        streamId: event.streamId,
        sync: "sent",
        sentAt: Date.now(),
      });
  if (list && !(await tx.objectStore("lists").getKey(list.hash))) await tx.objectStore("lists").put(list);
  await tx.done;
}
