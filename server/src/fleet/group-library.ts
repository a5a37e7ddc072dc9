import { contentHash } from "@cravix/contract";
import type { FileFault } from "@cravix/contract/files";
import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { composeType } from "@cravix/core/parts/compose-type";
import type { PartSheet } from "@cravix/core/parts/part-sheet";
import type { TypeComposition } from "@cravix/core/parts/type-composition";
import { type ShippedLibrary, shippedLibrary } from "@cravix/library";
import { and, desc, eq } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { aircraftType, fileVersion, partSheet } from "../db/schema/fleet";

/** The shipped library with a group's own sheets, which replace shipped ones of the same id. */
export function libraryWith(sheets: readonly PartSheet[]): ShippedLibrary {
  const shipped = shippedLibrary();
  if (sheets.length === 0) return shipped;
  const parts = new Map([...shipped.parts, ...sheets].map((sheet) => [sheet.id, sheet]));
  return { ...shipped, parts: [...parts.values()], hash: contentHash([shipped.hash, sheets]) };
}

/** A group's own part sheets, by id. */
export async function ownSheets(db: Db | Tx, groupId: string): Promise<PartSheet[]> {
  const rows = await db
    .select({ body: partSheet.body })
    .from(partSheet)
    .where(eq(partSheet.groupId, groupId))
    .orderBy(partSheet.id);
  return rows.map(({ body }) => body);
}

/** Composes a type from the library of a group. */
export async function composeForGroup(
  tx: Tx,
  groupId: string,
  composition: TypeComposition,
): Promise<{ type: AircraftType; library: string } | { faults: FileFault[] }> {
  const library = libraryWith(await ownSheets(tx, groupId));
  const composed = composeType(composition, library);
  return "faults" in composed ? composed : { type: composed.type, library: library.hash };
}

/** A type of a group that the library does not make any more, and why. */
export type NotComposed = FileFault & { typeId: string };

/**
 * Composes a group's types again that were made with another library. One that cannot be made any more stays as it was, and is
 * returned with its fault.
 */
export async function recomposeGroup(tx: Tx, groupId: string): Promise<NotComposed[]> {
  const library = libraryWith(await ownSheets(tx, groupId));
  const rows = await tx
    .select({ id: aircraftType.id, library: aircraftType.library })
    .from(aircraftType)
    .where(eq(aircraftType.groupId, groupId));
  const faults: NotComposed[] = [];
  for (const { id, library: made } of rows) {
    if (made === null || made === library.hash) continue;
    const composition = await newestComposition(tx, groupId, id);
    if (!composition) continue;
    const composed = composeType(composition, library);
    if ("faults" in composed) faults.push(...composed.faults.map((fault) => ({ ...fault, typeId: id })));
    else
      await tx
        .update(aircraftType)
        .set({ body: composed.type, library: library.hash })
        .where(and(eq(aircraftType.groupId, groupId), eq(aircraftType.id, id)));
  }
  return faults;
}

async function newestComposition(tx: Tx, groupId: string, id: string): Promise<TypeComposition | undefined> {
  const [row] = await tx
    .select({ body: fileVersion.body })
    .from(fileVersion)
    .where(
      and(
        eq(fileVersion.groupId, groupId),
        eq(fileVersion.kind, "aircraft-type"),
        eq(fileVersion.fileId, id),
      ),
    )
    .orderBy(desc(fileVersion.version))
    .limit(1);
  return row?.body as TypeComposition | undefined;
}

/** Composes every group's types again after the library has changed. Returns those that stayed as they were. */
export async function recomposeTypes(db: Db): Promise<NotComposed[]> {
  const groups = await db.selectDistinct({ groupId: aircraftType.groupId }).from(aircraftType);
  const faults: NotComposed[] = [];
  for (const { groupId } of groups)
    faults.push(...(await db.transaction((tx) => recomposeGroup(tx, groupId))));
  return faults;
}
