import { type CrewMember, type Deed, isName, type Subject, whyNot } from "@cravix/contract";
import { and, eq } from "drizzle-orm";
import type { Context } from "hono";
import type { Db, Tx } from "../db/database";
import { crew } from "../db/schema/fleet";
import { HOME_GROUP } from "../db/schema/group";
import { problem } from "./problem";

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

/** The member who sends a request; undefined if none is named, or not of this group. */
export async function principalOf(db: Db | Tx, { groupId, crewId }: Caller): Promise<CrewMember | undefined> {
  if (crewId === undefined) return undefined;
  const [member] = await db
    .select({ id: crew.id, name: crew.name, role: crew.role })
    .from(crew)
    .where(and(eq(crew.groupId, groupId), eq(crew.id, crewId)));
  return member;
}

/** The error response if the member who sends this request may not do it; undefined if they may. */
export async function forbidden(c: Context, db: Db, deed: Deed, subject?: Subject) {
  const reason = whyNot(await principalOf(db, callerOf(c)), deed, subject);
  return reason === undefined ? undefined : problem(c, 403, reason);
}

/** Members who can sign events of this group. */
export async function knownCrew(db: Db, groupId: string): Promise<Map<string, CrewMember>> {
  const members = await db
    .select({ id: crew.id, name: crew.name, role: crew.role })
    .from(crew)
    .where(eq(crew.groupId, groupId));
  return new Map(members.map((member) => [member.id, member]));
}
