import { contentHash } from "@cravix/contract";
import type { Db } from "../db/database";
import { list } from "../db/schema/checklist";

/** Keeps a composed list under its content hash; the same list twice is one. Returns false when the hash is not its own. */
export async function putList(db: Db, hash: string, body: unknown): Promise<boolean> {
  if ((body as { format?: unknown } | null)?.format !== "cravix.list/1" || contentHash(body) !== hash)
    return false;
  await db.insert(list).ignore().values({ hash, body });
  return true;
}
