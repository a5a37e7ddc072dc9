import { api, ServerUnreachableError } from "../api";
import { deviceDatabase, type KeptPicture } from "../log/database";

/** So many pictures a device keeps of what the server has; some sixty megabytes at the most. */
const MOST_KEPT = 300;

/** Not logged after all: the picture goes. */
export async function dropPicture(hash: string): Promise<void> {
  const db = await deviceDatabase();
  if ((await db.get("photographs", hash))?.state === "draft") await db.delete("photographs", hash);
}

/** What waits for the server, and whether it has what each is of: before that no picture is sent. */
export async function picturesToSend(): Promise<
  (KeptPicture & { logged: "sent" | "to send" | "refused" })[]
> {
  const db = await deviceDatabase();
  const waiting = await db.getAllFromIndex("photographs", "byState", "to send");
  return Promise.all(
    waiting.map(async (kept) => ({
      ...kept,
      // Of a walk that has been let go of since, the server has everything.
      logged: (kept.eventId && (await db.get("events", kept.eventId))?.sync) || "sent",
    })),
  );
}

/** Writes down what the server said of a picture; a refused one stays here with the reason. */
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

/** The picture from this device, else from the server, and then kept here; undefined where neither has it. */
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

/** Fetches what is not here yet, one after another, for the apron without a network; the oldest that the server has make room. */
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
  for (const { hash } of old.slice(0, Math.max(0, sent.length - MOST_KEPT)))
    await db.delete("photographs", hash);
}
