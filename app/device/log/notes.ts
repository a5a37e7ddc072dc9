import { answersInTime, deviceDatabase } from "./database";
import { whenWritesComplete } from "./pending-writes";

/** Notes that are let go of and still lie on the disk, each with whoever let go of it last. */
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
    // As with an answer: from here on it is written down without this page.
    tx.commit();
    await Promise.all([put, tx.done]);
  };
  await answersInTime(work());
}

/** Changes a note from what is on the disk now: what another window wrote there in the meantime is not lost. */
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
 * Lets go of a draft. It is no longer there for whoever asks; from the disk it goes only once all that was answered so far lies there: what it became must not
 * be lost together with it.
 */
export async function dropNote(key: string): Promise<void> {
  waiting.delete(key);
  changes.delete(key);
  tellWaiting();
  const mine = {};
  letGo.set(key, mine);
  await whenWritesComplete();
  // Written anew in the meantime, it is another.
  if (letGo.get(key) !== mine) return;
  await (await deviceDatabase()).delete("notes", key);
  if (letGo.get(key) === mine) letGo.delete(key);
}

/** The names of all notes that begin with this. */
export async function noteKeys(prefix: string): Promise<string[]> {
  return (await deviceDatabase()).getAllKeys("notes", IDBKeyRange.bound(prefix, `${prefix}\uffff`));
}

/** What the disk did not take yet, by the note's name: how it is written. */
const waiting = new Map<string, () => Promise<unknown>>();
const AGAIN_MS = 4000;
let timer: ReturnType<typeof setTimeout> | undefined;
let told: (count: number) => void = () => undefined;

/** Hears how many notes are not on the disk yet. */
export function hearWaitingNotes(onChange: (count: number) => void): void {
  told = onChange;
}

const tellWaiting = () => told(waiting.size);

/** Keeps a draft. Where the disk does not take it, that is told, and it is tried again until it does; it is never dropped in silence. */
export function keepNote(key: string, value: unknown): Promise<void> {
  return keep(key, () => writeNote(key, value));
}

type Change = (before: unknown) => unknown;
/** Changes that the disk did not take yet, by the note's name, in their order. */
const changes = new Map<string, readonly Change[]>();

/** The same for a note that every window of this device writes: only what changes here is written over what is on the disk. A change may be made twice. */
export function keepChange<T>(key: string, change: (before: T | undefined) => T): Promise<void> {
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
    tellWaiting();
  } catch {
    tellWaiting();
    clearTimeout(timer);
    timer = setTimeout(keepWaiting, AGAIN_MS);
  }
}

async function keepWaiting(): Promise<void> {
  for (const [key, write] of [...waiting]) await keep(key, write);
}
