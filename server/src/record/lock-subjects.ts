import { sql } from "drizzle-orm";
import type { Tx } from "../db/database";
import { subjectVersion } from "../db/schema/checklist";

/** Names of what events depend on besides their stream. Ids of discrepancies are unique on the server, other names in a group. */
export const subjectOf = {
  discrepancy: (id: string) => `discrepancy ${id}`,
  aircraft: (groupId: string, registration: string) => `aircraft ${groupId} ${registration}`,
  component: (groupId: string, id: string) => `component ${groupId} ${id}`,
  equipment: (groupId: string, id: string) => `equipment ${groupId} ${id}`,
  person: (groupId: string, id: string) => `person ${groupId} ${id}`,
  plan: (groupId: string) => `plan ${groupId}`,
  file: (groupId: string, kind: string, id: string) => `file ${groupId} ${kind} ${id}`,
};

/**
 * Locks subjects in a fixed order until the transaction ends, and writes their versions: a row lock does not reach the other servers
 * of a database cluster, but two transactions that wrote the same row cannot both commit there.
 */
export async function lockSubjects(tx: Tx, subjects: readonly string[]): Promise<void> {
  if (subjects.length === 0) return;
  const rows = sql.param([...new Set(subjects)].sort().map((subject) => [subject]));
  await tx.execute(
    sql`insert into ${subjectVersion} (subject) values ${rows} on duplicate key update version = version + 1`,
  );
}
