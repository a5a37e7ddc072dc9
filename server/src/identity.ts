import { type CrewMember, isName } from "@cravix/contract";
import { eq } from "drizzle-orm";
import type { Context } from "hono";
import type { Db } from "./db/database";
import { crew } from "./db/schema/fleet";
import { HOME_GROUP } from "./db/schema/group";

/** Group and, if named, person of a request. */
export interface Caller {
  groupId: string;
  crewId?: string;
}

/** Header naming the crew member for requests that are not events; non-ASCII characters are percent-encoded. */
export const CREW_HEADER = "cravix-crew";

/** Determines the caller: the default group, and the member in `cravix-crew`. Sign-in will replace only this function. */
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

/** Members who can sign events of this group. */
export async function knownCrew(db: Db, groupId: string): Promise<Map<string, CrewMember>> {
  const members = await db
    .select({ id: crew.id, name: crew.name, role: crew.role })
    .from(crew)
    .where(eq(crew.groupId, groupId));
  return new Map(members.map((member) => [member.id, member]));
}
