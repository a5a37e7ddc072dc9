import type { CrewMember } from "@cravix/contract";
import type { Db } from "../db/database";
import { aircraft } from "../db/schema/fleet";
import { knownCrew } from "../identity";

export interface KnownNames {
  crew: ReadonlyMap<string, CrewMember>;
  registrations: ReadonlySet<string>;
}

const remembered = new WeakMap<Db, KnownNames>();

/**
 * The group's people and aircraft. They hardly ever change, and every batch asks for them: remembered, and asked for anew by a caller
 * that misses somebody or to whom the role matters.
 */
export async function knownNames(db: Db, fresh: boolean): Promise<KnownNames> {
  const before = fresh ? undefined : remembered.get(db);
  if (before) return before;
  const crew = await knownCrew(db);
  const rows = await db.select({ registration: aircraft.registration }).from(aircraft);
  const names = { crew, registrations: new Set(rows.map((row) => row.registration)) };
  remembered.set(db, names);
  return names;
}
