import { contentHash } from "@cravix/contract";
import { readList } from "@cravix/contract/files";
import type { Db } from "../db/database";
import { whileBusy } from "../db/retried";

/** Stores a checklist's text under its content hash, once. */
export async function saveList(db: Db, hash: string, text: string, groupId: string): Promise<void> {
  // As a parameter: escaping some megabytes into a statement is slow.
  await whileBusy(() =>
    db.$client.execute("insert ignore into list (group_id, hash, body) values (?, ?, ?)", [
      groupId,
      hash,
      text,
    ]),
  );
}

/** Validates and stores a checklist. Returns false if the hash is wrong or it is invalid. */
export async function putList(db: Db, hash: string, body: unknown, groupId: string): Promise<boolean> {
  if ("faults" in readList(body) || contentHash(body) !== hash) return false;
  await saveList(db, hash, JSON.stringify(body), groupId);
  return true;
}
