import { type CrewMember, contentHash, type Deed, type Subject, whyNot } from "@cravix/contract";
import type { CravixFile } from "@cravix/contract/files";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { and, count, eq } from "drizzle-orm";
import type { Tx } from "../db/database";
import { loadingProfile } from "../db/schema/airworthiness";
import { aircraft, crew } from "../db/schema/fleet";

/** Why this member may not save the file; undefined if they may. A group without members begins with its crew file. */
export async function notAllowed(
  tx: Tx,
  groupId: string,
  by: CrewMember | undefined,
  file: CravixFile,
): Promise<string | undefined> {
  const subject = await subjectFor(tx, groupId);
  if (file.format === "cravix.crew/1" && subject.members === 0) return undefined;
  return whyNot(by, await deedFor(tx, groupId, file), subject);
}

async function subjectFor(tx: Tx, groupId: string): Promise<Subject & { members: number }> {
  const rows = await tx
    .select({ role: crew.role, n: count() })
    .from(crew)
    .where(eq(crew.groupId, groupId))
    .groupBy(crew.role);
  return {
    members: rows.reduce((sum, { n }) => sum + n, 0),
    hasAdministrator: rows.some(({ role }) => role === "administrator"),
  };
}

async function deedFor(tx: Tx, groupId: string, file: CravixFile): Promise<Deed> {
  switch (file.format) {
    case "cravix.crew/1":
      return "crew.edit";
    case "cravix.rule-set/1":
      return "rules.edit";
    case "cravix.airfield/1":
      return "airfield.edit";
    case "cravix.aircraft/2": {
      const own = and(eq(aircraft.groupId, groupId), eq(aircraft.registration, file.registration));
      const [before] = await tx.select({ body: aircraft.body }).from(aircraft).where(own);
      return before && isSameExcept("ownItems", upgradeFile(before.body), file)
        ? "items.edit"
        : "aircraft.edit";
    }
    case "cravix.loading/1": {
      const own = and(
        eq(loadingProfile.groupId, groupId),
        eq(loadingProfile.registration, file.registration),
      );
      const [before] = await tx.select({ body: loadingProfile.body }).from(loadingProfile).where(own);
      return before && isSameExcept("weighing", before.body, file) ? "weighing.enter" : "aircraft.edit";
    }
    default:
      return "aircraft.edit";
  }
}

/** True if two versions of a file differ at most in one part. */
function isSameExcept(part: string, before: unknown, after: unknown): boolean {
  const without = (file: unknown) => contentHash({ ...(file as Record<string, unknown>), [part]: null });
  return without(before) === without(after);
}
