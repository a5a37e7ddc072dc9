import type { RuleSet } from "@cravix/core/rules/rule-set";
import { and, eq } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { ruleSet } from "../db/schema/fleet";

/**
 * Rule set of an aircraft: named by its file, else by its airfield. If neither names one, the group's only set; never an
 * arbitrary one of several.
 */
export async function readRules(
  db: Db | Tx,
  groupId: string,
  named: string | undefined,
): Promise<RuleSet | null> {
  const rows = await db
    .select()
    .from(ruleSet)
    .where(and(eq(ruleSet.groupId, groupId), named === undefined ? undefined : eq(ruleSet.id, named)))
    .limit(2);
  return rows.length === 1 ? (rows[0]?.body ?? null) : null;
}
