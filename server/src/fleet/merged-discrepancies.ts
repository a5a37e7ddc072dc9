import { and, eq, inArray, isNotNull, isNull } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { discrepancy } from "../db/schema/discrepancy";

/**
 * Merged discrepancies that are open all the same, because nothing carries them on: the one they were merged into was withdrawn, is
 * not on record, or was in the end merged into them. A finding never disappears with the one that took it over.
 */
export async function openInSpiteOfMerge(db: Db | Tx, groupId: string): Promise<ReadonlySet<string>> {
  const merged = await db
    .select({ id: discrepancy.id, into: discrepancy.mergedInto })
    .from(discrepancy)
    .where(
      and(
        eq(discrepancy.groupId, groupId),
        isNotNull(discrepancy.mergedInto),
        isNull(discrepancy.closedAt),
        isNull(discrepancy.withdrawnAt),
      ),
    );
  if (merged.length === 0) return new Set();
  const targets = await db
    .select({ id: discrepancy.id, withdrawnAt: discrepancy.withdrawnAt })
    .from(discrepancy)
    .where(
      and(
        eq(discrepancy.groupId, groupId),
        inArray(
          discrepancy.id,
          merged.flatMap(({ into }) => into ?? []),
        ),
      ),
    );
  const carried = new Set(targets.flatMap(({ id, withdrawnAt }) => (withdrawnAt === null ? [id] : [])));
  const next = new Map(merged.flatMap(({ id, into }) => (into === null ? [] : [[id, into] as const])));
  return new Set(merged.flatMap(({ id }) => (isCarried(id, next, carried) ? [] : [id])));
}

/** True if another one carries this finding on: the one it was merged into is on record, and does not lead back to it. */
function isCarried(id: string, next: ReadonlyMap<string, string>, carried: ReadonlySet<string>): boolean {
  const first = next.get(id);
  if (first === undefined || !carried.has(first)) return false;
  const seen = new Set<string>();
  for (let at: string | undefined = first; at !== undefined && !seen.has(at); at = next.get(at)) {
    if (at === id) return false;
    seen.add(at);
  }
  return true;
}
