import { answersInTime, deviceDatabase } from "./database";
import { whenWritesComplete } from "./pending-writes";

/** Notes dropped but still on disk, with a token of the last drop. */
const letGo = new Map<string, object>();

export async function readNote<T>(key: string): Promise<T | undefined> {
  if (letGo.has(key)) return undefined;
  return (await (await deviceDatabase()).get("notes", key)) as T | undefined;
}

export async function writeNote(key: string, value: unknown): Promise<void> {
  letGo.delete(key);
  const tx = (await deviceDatabase()).transaction("notes", "readwrite");
  tx.done.catch(() => undefined);
  const work = async () => {
    const put = tx.store.put(value, key);
    // Committed without this page, as for answers.
    tx.commit();
    await Promise.all([put, tx.done]);
  };
  await answersInTime(work());
}

/** Updates a note from its stored value, so that changes of other windows are kept. */
export async function changeNote<T>(key: string, change: (before: T | undefined) => T): Promise<T> {
  const fresh = letGo.delete(key);
  const tx = (await deviceDatabase()).transaction("notes", "readwrite", { durability: "strict" });
  tx.done.catch(() => undefined);
  const after = change(fresh ? undefined : ((await tx.store.get(key)) as T | undefined));
  await tx.store.put(after, key);
  await tx.done;
  return after;
}

/**
 * Drops a draft: it is gone for readers at once, but stays on disk until all earlier answers are stored, so that the draft and
 * its result cannot both be lost.
 */
export async function dropNote(key: string): Promise<void> {
  waiting.delete(key);
  changes.delete(key);
  notifyWaiting();
  const mine = {};
  letGo.set(key, mine);
  await whenWritesComplete();
  // Written again meanwhile.
  if (letGo.get(key) !== mine) return;
  await (await deviceDatabase()).delete("notes", key);
  if (letGo.get(key) === mine) letGo.delete(key);
}

/** Keys of all notes with this prefix. */
export async function noteKeys(prefix: string): Promise<string[]> {
  return (await deviceDatabase()).getAllKeys("notes", IDBKeyRange.bound(prefix, `${prefix}\uffff`));
}

/** Notes not stored yet, with their write function. */
const waiting = new Map<string, () => Promise<unknown>>();
const AGAIN_MS = 4000;
let timer: ReturnType<typeof setTimeout> | undefined;
let told: (count: number) => void = () => undefined;

/** Sets the listener for the number of notes not stored yet. */
export function hearWaitingNotes(onChange: (count: number) => void): void {
  told = onChange;
}

const notifyWaiting = () => told(waiting.size);

/** Saves a draft. A failed write is reported and retried until it succeeds. */
export function saveNote(key: string, value: unknown): Promise<void> {
  return keep(key, () => writeNote(key, value));
}

type Change = (before: unknown) => unknown;
/** Changes not stored yet, by key, in order. */
const changes = new Map<string, readonly Change[]>();

/** Saves a change to a note shared by all windows, applied to the stored value. A change may be applied twice. */
export function saveNoteChange<T>(key: string, change: (before: T | undefined) => T): Promise<void> {
  changes.set(key, [...(changes.get(key) ?? []), change as Change]);
  return keep(key, async () => {
    const now = changes.get(key) ?? [];
    await answersInTime(changeNote<unknown>(key, (before) => now.reduce((value, one) => one(value), before)));
    changes.set(
      key,
      (changes.get(key) ?? []).filter((one) => !now.includes(one)),
    );
  });
}

async function keep(key: string, write: () => Promise<unknown>): Promise<void> {
  waiting.set(key, write);
  try {
    await write();
    if (waiting.get(key) === write) waiting.delete(key);
    notifyWaiting();
  } catch {
    notifyWaiting();
    clearTimeout(timer);
    timer = setTimeout(saveWaiting, AGAIN_MS);
  }
}

async function saveWaiting(): Promise<void> {
  for (const [key, write] of [...waiting]) await keep(key, write);
}
