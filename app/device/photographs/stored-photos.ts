import { api, ServerUnreachableError } from "../api";
import { deviceDatabase, type KeptPicture } from "../log/database";

/** Maximum number of sent photos stored, about sixty megabytes. */
const MAX_KEPT = 300;

/** Deletes a photo that was not logged. */
export async function dropPicture(hash: string): Promise<void> {
  const db = await deviceDatabase();
  if ((await db.get("photographs", hash))?.state === "draft") await db.delete("photographs", hash);
}

/** Photos to send, with whether the server has their event: a photo is sent only after it. */
export async function picturesToSend(): Promise<
  (KeptPicture & { logged: "sent" | "to send" | "refused" })[]
> {
  const db = await deviceDatabase();
  const waiting = await db.getAllFromIndex("photographs", "byState", "to send");
  return Promise.all(
    waiting.map(async (kept) => ({
      ...kept,
      // For a preflight deleted here, the server has everything.
      logged: (kept.eventId && (await db.get("events", kept.eventId))?.sync) || "sent",
    })),
  );
}

/** Stores the server's response to a photo; a rejected one stays with its reason. */
export async function notePicture(hash: string, reason?: string): Promise<void> {
  const db = await deviceDatabase();
  const kept = await db.get("photographs", hash);
  if (kept)
    await db.put("photographs", {
      ...kept,
      state: reason === undefined ? "sent" : "refused",
      ...(reason !== undefined && { reason }),
    });
}

/** Photo from this device, else from the server and then stored; undefined if neither has it. */
export async function pictureOf(hash: string): Promise<Blob | undefined> {
  const db = await deviceDatabase();
  const kept = await db.get("photographs", hash);
  if (kept) return new Blob([kept.bytes], { type: kept.type });
  try {
    const blob = await api.photograph(hash);
    await db.put("photographs", {
      hash,
      bytes: await blob.arrayBuffer(),
      type: blob.type,
      state: "sent",
      at: Date.now(),
    });
    return blob;
  } catch {
    return undefined;
  }
}

/** Downloads missing photos one by one for offline use; the oldest sent ones are deleted to make room. */
export async function fetchPictures(hashes: readonly string[]): Promise<void> {
  const db = await deviceDatabase();
  for (const hash of hashes) {
    if (await db.getKey("photographs", hash)) continue;
    try {
      await pictureOf(hash);
    } catch (error) {
      if (error instanceof ServerUnreachableError) return;
    }
  }
  const sent = await db.getAllFromIndex("photographs", "byState", "sent");
  const wanted = new Set(hashes);
  const old = sent.filter(({ hash }) => !wanted.has(hash)).sort((a, b) => a.at - b.at);
  for (const { hash } of old.slice(0, Math.max(0, sent.length - MAX_KEPT)))
    await db.delete("photographs", hash);
}
