import { type AircraftRecord, applyComponentMove, type RecordMeter } from "@cravix/core";
import { and, asc, eq, inArray } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb } from "../db/moment";
import { airworthiness, componentMove, meterChange } from "../db/schema/airworthiness";

/** An aircraft's record from its file, with later meter replacements and component moves; undefined if none is on file. */
export async function effectiveRecord(
  db: Db | Tx,
  groupId: string,
  registration: string,
): Promise<AircraftRecord | undefined> {
  return (await effectiveRecords(db, groupId, [registration])).get(registration);
}

/** Records of several aircraft in one query, by registration; those without one are left out. */
export async function effectiveRecords(
  db: Db | Tx,
  groupId: string,
  registrations: readonly string[],
): Promise<Map<string, AircraftRecord>> {
  if (registrations.length === 0) return new Map();
  const of = <T extends typeof airworthiness | typeof meterChange | typeof componentMove>(table: T) =>
    and(eq(table.groupId, groupId), inArray(table.registration, [...registrations]));
  const rows = await db.select().from(airworthiness).where(of(airworthiness));
  if (rows.length === 0) return new Map();
  const changes = await db.select().from(meterChange).where(of(meterChange));
  const moves = await db.select().from(componentMove).where(of(componentMove)).orderBy(asc(componentMove.id));
  return new Map(
    rows.map(({ registration, body }) => [
      registration,
      withChanges(
        body,
        changes.filter((change) => change.registration === registration),
        moves.filter((move) => move.registration === registration),
      ),
    ]),
  );
}

function withChanges(
  body: AircraftRecord,
  changes: readonly (typeof meterChange.$inferSelect)[],
  moves: readonly (typeof componentMove.$inferSelect)[],
): AircraftRecord {
  const changed = (meter: RecordMeter): RecordMeter => {
    const own = changes
      .filter((change) => change.meter === meter.id)
      .map(({ at, oldReading, newReading }) => ({ at: fromDb(at), oldReading, newReading }));
    return own.length === 0
      ? meter
      : {
          ...meter,
          changes: [...(meter.changes ?? []), ...own].sort((a, b) => a.at.localeCompare(b.at)),
        };
  };
  return moves.reduce<AircraftRecord>(
    (record, { at, component, fitted, position, totals, as }) =>
      applyComponentMove(record, {
        at: fromDb(at),
        totals,
        ...(fitted && as ? { fitted: as, ...(position !== null && { position }) } : { component }),
      } as Parameters<typeof applyComponentMove>[1]),
    { ...body, meters: body.meters.map(changed) },
  );
}
