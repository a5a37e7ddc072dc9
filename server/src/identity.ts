import { type CrewMember, isName } from "@cravix/contract";
import { eq } from "drizzle-orm";
import type { Context } from "hono";
import type { Db } from "./db/database";
import { crew } from "./db/schema/fleet";
import { HOME_GROUP } from "./db/schema/group";

/** Who asks: the group whose record it is, and the person, where one is named. */
export interface Caller {
  groupId: string;
  crewId?: string;
}

/** The header that names who holds the device, for what is no event; letters beyond ASCII are escaped as in an address. */
export const CREW_HEADER = "cravix-crew";

/**
 * The one place that says who asks. For now a person picks a name of the one group, and the device says which; a session replaces this function
 * and nothing else.
 */
export function callerOf(c: Context): Caller {
  const named = decoded(c.req.header(CREW_HEADER));
  return { groupId: HOME_GROUP, ...(named && named.length <= 120 && isName(named) && { crewId: named }) };
}

function decoded(header: string | undefined): string | undefined {
  try {
    return header && decodeURIComponent(header);
  } catch {
    return undefined;
  }
}

/** Who may sign an event of this group. */
export async function knownCrew(db: Db, groupId: string): Promise<Map<string, CrewMember>> {
  const members = await db
    .select({ id: crew.id, name: crew.name, role: crew.role })
    .from(crew)
    .where(eq(crew.groupId, groupId));
  return new Map(members.map((member) => [member.id, member]));
}
