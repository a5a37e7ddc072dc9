import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { and, asc, eq, gt, inArray } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { event, projectionVersion, stream } from "../db/schema/checklist";
import { PROJECTIONS } from "../projections";
import type {
  Difference,
  GroupProjection,
  Projection,
  Row,
  StreamProjection,
} from "../projections/projection";
import { canonicalRow } from "../projections/stored-row";
import { readEvents } from "../record/read-events";

export interface RecordCheck {
  events: number;
  streams: number;
  discrepancies: number;
  differences: Difference[];
}

const AT_ONCE = 40;
const ALL: readonly Projection[] = Object.values(PROJECTIONS);
const PER_STREAM = ALL.filter((one): one is StreamProjection => one.per === "stream");
const PER_GROUP = ALL.filter((one): one is GroupProjection => one.per === "group");

/** Folds the whole record and compares it with every table that follows from it. */
export async function checkProjections(db: Db): Promise<RecordCheck> {
  const check: RecordCheck = { events: 0, streams: 0, discrepancies: 0, differences: [] };
  await checkStreams(db, check);
  for (const groupId of await groupsOf(db)) {
    for (const projection of PER_GROUP) {
      const events = await eventsOf(db, groupId, projection);
      compare(
        check,
        projection.name,
        groupId,
        projection.rows(groupId, events),
        await projection.stored(db, groupId),
      );
    }
    for (const projection of ALL)
      if (projection.per === "record") check.differences.push(...(await projection.differences(db, groupId)));
    const about = await db
      .selectDistinct({ id: event.discrepancyId })
      .from(event)
      .where(and(eq(event.groupId, groupId), gt(event.discrepancyId, "")));
    check.discrepancies += about.length;
  }
  return check;
}

/** Rebuilds the tables of every group whose rows were written by older code. Does nothing if all are current. */
export async function rebuildOutdated(db: Db): Promise<string[]> {
  const known = new Map(
    (await db.select().from(projectionVersion)).map(({ name, version }) => [name, version]),
  );
  const outdated = PER_GROUP.filter(({ name, version }) => (known.get(name) ?? 0) < version);
  for (const projection of outdated)
    await db.transaction(async (tx) => {
      for (const groupId of await groupsOf(tx)) await rebuild(tx, groupId, projection);
      const { name, version } = projection;
      await tx.insert(projectionVersion).values({ name, version }).onDuplicateKeyUpdate({ set: { version } });
    });
  return outdated.map(({ name }) => name);
}

async function rebuild(tx: Tx, groupId: string, projection: GroupProjection): Promise<void> {
  const events = await eventsOf(tx, groupId, projection);
  await projection.clear(tx, groupId);
  for (const row of projection.rows(groupId, events)) await projection.insert(tx, [row]);
}

async function groupsOf(db: Db | Tx): Promise<string[]> {
  return (await db.selectDistinct({ groupId: stream.groupId }).from(stream)).map(({ groupId }) => groupId);
}

async function eventsOf(db: Db | Tx, groupId: string, { kinds }: GroupProjection) {
  return readEvents(db, and(eq(event.groupId, groupId), inArray(event.stream, [...kinds])));
}

async function checkStreams(db: Db, check: RecordCheck): Promise<void> {
  for (let after = ""; ; ) {
    const streams = await db
      .select()
      .from(stream)
      .where(gt(stream.id, after))
      .orderBy(asc(stream.id))
      .limit(AT_ONCE);
    if (streams.length === 0) return;
    after = streams.at(-1)?.id ?? "";
    const ids = streams.map(({ id }) => id);
    const events = await readEvents(db, inArray(event.streamId, ids));
    const stored = new Map<StreamProjection, { streamId: string; row: Row }[]>();
    for (const projection of PER_STREAM) stored.set(projection, await projection.stored(db, ids));
    for (const { id, groupId, kind } of streams) {
      const own = events.filter((one) => one.streamId === id);
      if (own.length === 0) continue;
      check.streams++;
      check.events += own.length;
      const read = { id, kind, events: own, state: foldPreflight(id, own) };
      for (const projection of PER_STREAM)
        compare(
          check,
          projection.name,
          id,
          projection.rows(groupId, read),
          (stored.get(projection) ?? []).flatMap((one) => (one.streamId === id ? [one.row] : [])),
        );
    }
  }
}

function compare(
  check: RecordCheck,
  table: string,
  id: string,
  folded: readonly Row[],
  written: readonly Row[],
): void {
  const [a, b] = [folded.map(canonicalRow).sort(), written.map(canonicalRow).sort()];
  if (a.join("\n") !== b.join("\n")) check.differences.push({ table, id, folded: a, written: b });
}
