import type { EventData } from "@cravix/core/checklist/stream/events";
import { and, eq } from "drizzle-orm";
import { event } from "../../db/schema/checklist";
import type { Admission } from "./event-kind";

type Release = EventData["work.released"];

/** A release on record, and who signed it. */
export async function releaseOnRecord(
  { tx, groupId }: Admission,
  id: string,
): Promise<{ crewId: string; release: Release } | undefined> {
  const [found] = await tx
    .select({ crewId: event.crewId, data: event.data })
    .from(event)
    .where(and(eq(event.groupId, groupId), eq(event.id, id), eq(event.type, "work.released")));
  return found && { crewId: found.crewId, release: found.data as Release };
}

/** This release, if the same person signed it as preventive maintenance. */
export async function ownPreventive(admission: Admission, id: string): Promise<Release | undefined> {
  const found = await releaseOnRecord(admission, id);
  return found?.crewId === admission.principal.id && found.release.preventive === true
    ? found.release
    : undefined;
}
