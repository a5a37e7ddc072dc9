import { contentHash } from "@cravix/contract";
import { readList } from "@cravix/contract/files";
import type { Db } from "../db/database";
import { HOME_GROUP } from "../db/schema/group";

/** Keeps the text of a list that was read under its content hash; the same list twice is one. */
export async function keepList(db: Db, hash: string, text: string, groupId = HOME_GROUP): Promise<void> {
  // As a value of its own beside the statement: a list of some megabytes is not put into its words letter by letter.
  await db.$client.execute("insert ignore into list (group_id, hash, body) values (?, ?, ?)", [
    groupId,
    hash,
    text,
  ]);
}

/** Checks and keeps a list. Returns false where the hash is not its own or it is no list. */
export async function putList(db: Db, hash: string, body: unknown, groupId = HOME_GROUP): Promise<boolean> {
  if ("faults" in readList(body) || contentHash(body) !== hash) return false;
  await keepList(db, hash, JSON.stringify(body), groupId);
  return true;
}
