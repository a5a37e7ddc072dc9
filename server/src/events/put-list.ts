import { contentHash } from "@cravix/contract";
import { readList } from "@cravix/contract/files";
import type { Db } from "../db/database";
import { list } from "../db/schema/checklist";
import { HOME_GROUP } from "../db/schema/group";

/** Keeps a composed list that was read under its content hash; the same list twice is one. */
export async function keepList(db: Db, hash: string, body: unknown, groupId = HOME_GROUP): Promise<void> {
  await db.insert(list).ignore().values({ groupId, hash, body });
}

/** Checks and keeps a list. Returns false where the hash is not its own or it is no list. */
export async function putList(db: Db, hash: string, body: unknown, groupId = HOME_GROUP): Promise<boolean> {
  if ("faults" in readList(body) || contentHash(body) !== hash) return false;
  await keepList(db, hash, body, groupId);
  return true;
}
