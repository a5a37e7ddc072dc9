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
