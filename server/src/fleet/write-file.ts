import { type CrewMember, contentHash } from "@cravix/contract";
import type { CravixFile } from "@cravix/contract/files";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { and, desc, eq } from "drizzle-orm";
import { newProblem, recordProblems } from "../airworthiness/record-problems";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { retried } from "../db/retried";
import { airworthiness, equipmentList, loadingProfile } from "../db/schema/airworthiness";
import { aircraft, aircraftType, airfield, crew, fileVersion, partSheet, ruleSet } from "../db/schema/fleet";
import { carryTotals } from "../projections/flight-rows";
import { lockSubjects, subjectOf } from "../record/lock-subjects";
import { notAllowed } from "./file-permission";
import { composeForGroup, recomposeGroup } from "./group-library";

/** Who saves a file, and which version it is based on. */
export interface WriteFileOptions {
  groupId: string;
  /** The member who saves it, or this process itself when it loads data. */
  by: CrewMember | "operator" | undefined;
  now?: Date;
  /** Content hash of the version it is based on; absent: replace the newest. */
  basis?: string;
}

export type WriteFileOutcome =
  | { forbidden: string }
  | { missing: { path: string; expected: string } }
  | { changed: true }
  | undefined;

/** Identity of a file: kind and name. */
export function fileKey(file: CravixFile): { kind: string; fileId: string } {
  const kind = file.format.replace(/^cravix\./, "").replace(/\/\d+$/, "");
  // Files of one aircraft are named by it.
  if ("registration" in file) return { kind, fileId: file.registration };
  return { kind, fileId: "id" in file ? file.id : kind };
}

/**
 * Saves a valid file as the newest version; earlier ones are kept, with author and time. Saving the same file again is not a new
 * version. Returns what is missing, or that its base version is outdated; then nothing was written.
 */
export async function writeFile(
  db: Db,
  file: CravixFile,
  options: WriteFileOptions,
): Promise<{ path: string; expected: string } | undefined> {
  const outcome = await saveFile(db, file, options);
  if (outcome && "forbidden" in outcome) throw new Error(outcome.forbidden);
  return outcome && "missing" in outcome ? outcome.missing : undefined;
}

export async function saveFile(
  db: Db,
  file: CravixFile,
  { groupId, by, now = new Date(), basis }: WriteFileOptions,
): Promise<WriteFileOutcome> {
  const { kind, fileId } = fileKey(file);
  return retried(db, async (tx) => {
    await lockSubjects(tx, [
      subjectOf.file(groupId, kind, fileId),
      // Admission of works and component moves depends on this file.
      ...(kind === "airworthiness" ? [subjectOf.aircraft(groupId, fileId)] : []),
    ]);
    const forbidden = by === "operator" ? undefined : await notAllowed(tx, groupId, by, file);
    if (forbidden !== undefined) return { forbidden };
    const missing = await missingFor(tx, groupId, file);
    if (missing) return { missing };
    const newest = await newestVersion(tx, groupId, kind, fileId, now);
    if (basis !== undefined && !isBasis(basis, newest)) return { changed: true as const };
    await appendVersion(tx, { groupId, kind, fileId, now, by, file, newest });
    await putChecked(tx, groupId, file, now);
    return undefined;
  }).catch((error: unknown) => {
    if (error instanceof RecordConflict) return { missing: error.fault };
    throw error;
  });
}

/** Appends the version, unless it is the same as the newest. */
async function appendVersion(
  tx: Tx,
  given: Pick<WriteFileOptions, "groupId" | "by"> & {
    kind: string;
    fileId: string;
    now: Date;
    file: CravixFile;
    newest: { version: number; hash: string } | undefined;
  },
): Promise<void> {
  const { groupId, kind, fileId, now, by, file, newest } = given;
  const hash = contentHash(file);
  if (newest?.hash === hash) return;
  await tx.insert(fileVersion).values({
    groupId,
    kind,
    fileId,
    version: (newest?.version ?? 0) + 1,
    hash,
    before: newest?.hash ?? null,
    at: toDb(now.toISOString()),
    crewId: by === "operator" ? null : (by?.id ?? null),
    body: file,
  });
}

/** Puts the file where it is read, and checks what depends on it. */
async function putChecked(tx: Tx, groupId: string, file: CravixFile, now: Date): Promise<void> {
  const before =
    file.format === "cravix.airworthiness/1"
      ? await recordProblems(tx, groupId, file.registration, now)
      : undefined;
  await putNewest(tx, groupId, file);
  if (before && "registration" in file) await rejectNewProblems(tx, groupId, file.registration, now, before);
  if (file.format === "cravix.part/1") await recomposeAll(tx, groupId);
}

/** Rolls a file back that contradicts what is on record. */
class RecordConflict extends Error {
  constructor(readonly fault: { path: string; expected: string }) {
    super("The file contradicts what is on record.");
  }
}

/** A part sheet may not make a type of the group impossible to compose. */
async function recomposeAll(tx: Tx, groupId: string): Promise<void> {
  const [first] = await recomposeGroup(tx, groupId);
  if (first)
    throw new RecordConflict({
      path: "items",
      expected: `a sheet that every type can still be composed of. ${first.typeId}, ${first.path}: expected ${first.expected}`,
    });
}

/** A record may not make due items impossible to calculate that were not so before. */
async function rejectNewProblems(
  tx: Tx,
  groupId: string,
  registration: string,
  now: Date,
  before: ReadonlyMap<string, string>,
): Promise<void> {
  const problem = newProblem(before, await recordProblems(tx, groupId, registration, now));
  if (problem !== undefined)
    throw new RecordConflict({
      path: "items",
      expected: `a record that fits the flights, releases and components on file. ${problem}`,
    });
}

/** A device may have based its change on an upgraded file. */
const isBasis = (basis: string, newest: { hash: string; body: unknown } | undefined) =>
  newest !== undefined && (newest.hash === basis || contentHash(upgradeFile(newest.body)) === basis);

async function missingFor(tx: Tx, groupId: string, file: CravixFile) {
  if (file.format === "cravix.stations/1")
    return { path: "format", expected: "any other file; stations come with Cravix and are not replaced" };
  if (file.format === "cravix.aircraft-type/3") {
    const composed = await composeForGroup(tx, groupId, file);
    return "faults" in composed ? composed.faults[0] : undefined;
  }
  if (file.format === "cravix.airworthiness/1" || file.format === "cravix.loading/1") {
    const own = and(eq(aircraft.groupId, groupId), eq(aircraft.registration, file.registration));
    const [known] = await tx.select({ registration: aircraft.registration }).from(aircraft).where(own);
    return known
      ? undefined
      : { path: "registration", expected: "an aircraft that is on file; add its aircraft file first" };
  }
  if (file.format !== "cravix.aircraft/2") return undefined;
  const [type] = await tx
    .select({ body: aircraftType.body })
    .from(aircraftType)
    .where(and(eq(aircraftType.groupId, groupId), eq(aircraftType.id, file.typeId)));
  if (!type) return { path: "typeId", expected: "a type that is on file; add the type file first" };
  const stations = new Set(type.body.stations.map((station) => station.id));
  const lost = file.ownItems.findIndex((item) => !stations.has(item.station));
  return lost >= 0
    ? { path: `ownItems[${lost}].station`, expected: "a station of the aircraft type" }
    : undefined;
}

/** Newest version, locked until the transaction ends. A file older than versioning becomes the first version. */
async function newestVersion(tx: Tx, groupId: string, kind: string, fileId: string, now: Date) {
  const own = and(
    eq(fileVersion.groupId, groupId),
    eq(fileVersion.kind, kind),
    eq(fileVersion.fileId, fileId),
  );
  const [newest] = await tx
    .select({ version: fileVersion.version, hash: fileVersion.hash, body: fileVersion.body })
    .from(fileVersion)
    .where(own)
    .orderBy(desc(fileVersion.version))
    .limit(1)
    .for("update");
  if (newest) return newest;
  const before = await bodyOnRecord(tx, groupId, kind, fileId);
  if (!before) return undefined;
  const first = { version: 1, hash: contentHash(before) };
  await tx
    .insert(fileVersion)
    .values({ groupId, kind, fileId, ...first, at: toDb(now.toISOString()), body: before });
  return { ...first, body: before };
}

async function bodyOnRecord(tx: Tx, groupId: string, kind: string, fileId: string) {
  if (kind === "aircraft") {
    const own = and(eq(aircraft.groupId, groupId), eq(aircraft.registration, fileId));
    return (await tx.select().from(aircraft).where(own).for("update"))[0]?.body;
  }
  const table = { "aircraft-type": aircraftType, airfield, "rule-set": ruleSet }[kind];
  if (!table) return undefined;
  const own = and(eq(table.groupId, groupId), eq(table.id, fileId));
  return (await tx.select({ body: table.body }).from(table).where(own).for("update"))[0]?.body;
}

async function putNewest(tx: Tx, groupId: string, file: CravixFile): Promise<void> {
  switch (file.format) {
    case "cravix.aircraft-type/2":
      await tx
        .insert(aircraftType)
        .values({ groupId, id: file.id, body: file, library: null })
        .onDuplicateKeyUpdate({ set: { body: file, library: null } });
      return;
    case "cravix.aircraft-type/3": {
      const composed = await composeForGroup(tx, groupId, file);
      if ("faults" in composed) return;
      const { type: body, library } = composed;
      await tx
        .insert(aircraftType)
        .values({ groupId, id: file.id, body, library })
        .onDuplicateKeyUpdate({ set: { body, library } });
      return;
    }
    case "cravix.part/1":
      await tx
        .insert(partSheet)
        .values({ groupId, id: file.id, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      return;
    case "cravix.stations/1":
      return;
    case "cravix.aircraft/2": {
      const { registration, typeId } = file;
      await tx
        .insert(aircraft)
        .values({ groupId, registration, typeId, body: file })
        .onDuplicateKeyUpdate({ set: { typeId, body: file } });
      return;
    }
    case "cravix.loading/1":
      await tx
        .insert(loadingProfile)
        .values({ groupId, registration: file.registration, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      return;
    case "cravix.airfield/1":
      await tx
        .insert(airfield)
        .values({ groupId, id: file.id, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      return;
    case "cravix.rule-set/1":
      await tx
        .insert(ruleSet)
        .values({ groupId, id: file.id, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      return;
    case "cravix.airworthiness/1":
      await tx
        .insert(airworthiness)
        .values({ groupId, registration: file.registration, body: file })
        .onDuplicateKeyUpdate({ set: { body: file } });
      // Its meters may have changed.
      await carryTotals(tx, groupId, file.registration);
      return;
    case "cravix.equipment-list/1":
      await tx
        .insert(equipmentList)
        .values({ groupId, id: file.id, typeId: file.typeId, body: file })
        .onDuplicateKeyUpdate({ set: { typeId: file.typeId, body: file } });
      return;
    case "cravix.crew/1":
      for (const { id, name, role } of file.members)
        await tx
          .insert(crew)
          .values({ groupId, id, name, role })
          .onDuplicateKeyUpdate({ set: { name, role } });
      return;
  }
}
