import type { CrewMember } from "@cravix/contract";
import { eq } from "drizzle-orm";
import { knownCrew } from "../access/identity";
import type { Db } from "../db/database";
import { aircraft } from "../db/schema/fleet";

export interface KnownNames {
  crew: ReadonlyMap<string, CrewMember>;
  /** Year of construction by registration. */
  registrations: ReadonlyMap<string, number>;
}

const remembered = new WeakMap<Db, Map<string, KnownNames>>();

/**
 * People and aircraft of a group. They rarely change and every batch needs them: cached, and reloaded for a caller who misses a
 * name or needs current roles.
 */
export async function knownNames(db: Db, groupId: string, fresh: boolean): Promise<KnownNames> {
  const groups = remembered.get(db) ?? new Map<string, KnownNames>();
  remembered.set(db, groups);
  const before = fresh ? undefined : groups.get(groupId);
  if (before) return before;
  const crew = await knownCrew(db, groupId);
  const rows = await db
    .select({ registration: aircraft.registration, body: aircraft.body })
    .from(aircraft)
    .where(eq(aircraft.groupId, groupId));
  const names = {
    crew,
    registrations: new Map(rows.map(({ registration, body }) => [registration, body.year])),
  };
  groups.set(groupId, names);
  return names;
}
