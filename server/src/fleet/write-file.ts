import { contentHash } from "@cravix/contract";
import type { CravixFile } from "@cravix/contract/files";
import { eq } from "drizzle-orm";
import type { Db } from "../db/database";
import { aircraft, aircraftType, airfield, crew, ruleSet } from "../db/schema/fleet";

/** Puts a valid file on record; a file of the same id replaces the one before. Returns what is missing for it, if anything. */
export async function writeFile(
  db: Db,
  file: CravixFile,
): Promise<{ path: string; expected: string } | undefined> {
  switch (file.format) {
    case "cravix.aircraft-type/1":
      await db
        .insert(aircraftType)
        .values({ id: file.id, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      return undefined;
    case "cravix.aircraft/1": {
      const [type] = await db
        .select({ body: aircraftType.body })
        .from(aircraftType)
        .where(eq(aircraftType.id, file.typeId));
      if (!type)
        return {
          path: "typeId",
          expected: `a type that is on record; add the file for ${file.typeId} first`,
        };
      const stations = new Set(type.body.stations.map((station) => station.id));
      const lost = file.ownItems.findIndex((item) => !stations.has(item.station));
      if (lost >= 0) return { path: `ownItems[${lost}].station`, expected: `a station of ${file.typeId}` };
      const { registration, typeId } = file;
      await db
        .insert(aircraft)
        .values({ registration, typeId, body: file })
        .onDuplicateKeyUpdate({ set: { typeId, body: file } });
      return undefined;
    }
    case "cravix.airfield/1":
      await db
        .insert(airfield)
        .values({ id: file.id, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      return undefined;
    case "cravix.rule-set/1":
      await db
        .insert(ruleSet)
        .values({ id: file.id, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      return undefined;
    case "cravix.crew/1":
      for (const member of file.members)
        await db
          .insert(crew)
          .values(member)
          .onDuplicateKeyUpdate({ set: { name: member.name, role: member.role } });
      return undefined;
  }
}

/** Whether the aircraft on record is still the one that a new file was made from, by its content hash. Other files have no such basis. */
export async function isOnRecord(db: Db, file: CravixFile, basis: string): Promise<boolean> {
  if (file.format !== "cravix.aircraft/1") return true;
  const [row] = await db
    .select({ body: aircraft.body })
    .from(aircraft)
    .where(eq(aircraft.registration, file.registration));
  return row !== undefined && contentHash(row.body) === basis;
}
