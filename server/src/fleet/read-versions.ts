import type { FileVersion } from "@cravix/contract";
import { and, desc, eq } from "drizzle-orm";
import type { Db } from "../db/database";
import { fromDb } from "../db/moment";
import { fileVersion } from "../db/schema/fleet";

/** Versions of a file, newest first, with author, time and previous version. */
export async function readVersions(
  db: Db,
  groupId: string,
  kind: string,
  fileId: string,
): Promise<FileVersion[]> {
  const rows = await db
    .select()
    .from(fileVersion)
    .where(and(eq(fileVersion.groupId, groupId), eq(fileVersion.kind, kind), eq(fileVersion.fileId, fileId)))
    .orderBy(desc(fileVersion.version))
    .limit(500);
  return rows.map(({ version, hash, before, at, crewId }) => ({
    version,
    hash,
    before,
    at: fromDb(at),
    crewId,
  }));
}

/** One version of a file as saved; undefined if it does not exist. */
export async function readVersion(
  db: Db,
  groupId: string,
  kind: string,
  fileId: string,
  version: number,
): Promise<unknown> {
  const [row] = await db
    .select({ body: fileVersion.body })
    .from(fileVersion)
    .where(
      and(
        eq(fileVersion.groupId, groupId),
        eq(fileVersion.kind, kind),
        eq(fileVersion.fileId, fileId),
        eq(fileVersion.version, version),
      ),
    );
  return row?.body;
}
