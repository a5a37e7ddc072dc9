import { deviceDatabase } from "./database";

export async function readNote<T>(key: string): Promise<T | undefined> {
  return (await (await deviceDatabase()).get("notes", key)) as T | undefined;
}

export async function writeNote(key: string, value: unknown): Promise<void> {
  await (await deviceDatabase()).put("notes", value, key);
}

export async function dropNote(key: string): Promise<void> {
  await (await deviceDatabase()).delete("notes", key);
}

/** The names of all notes that begin with this. */
export async function noteKeys(prefix: string): Promise<string[]> {
  return (await deviceDatabase()).getAllKeys("notes", IDBKeyRange.bound(prefix, `${prefix}\uffff`));
}
