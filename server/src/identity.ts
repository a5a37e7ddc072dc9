import type { CrewMember } from "@cravix/contract";
import type { Db } from "./db/database";
import { crew } from "./db/schema/fleet";

/**
 * Who may sign an event. For now a person picks a name of the group; a login replaces this module and nothing else.
 */
export async function knownCrew(db: Db): Promise<Map<string, CrewMember>> {
  const members = await db.select().from(crew);
  return new Map(members.map((member) => [member.id, member]));
}
