import { type AircraftRecord, type RecordMeter, withMove } from "@cravix/core";
import { and, asc, eq } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb } from "../db/moment";
import { airworthiness, componentMove, meterChange } from "../db/schema/airworthiness";

/** An aircraft's record as its file has it, with the meters that were replaced and the components that were moved since; undefined where none is on file. */
export async function effectiveRecord(
  db: Db | Tx,
  groupId: string,
  registration: string,
): Promise<AircraftRecord | undefined> {
  const [row] = await db
    .select({ body: airworthiness.body })
    .from(airworthiness)
    .where(and(eq(airworthiness.groupId, groupId), eq(airworthiness.registration, registration)));
  if (!row) return undefined;
  const changes = await db
    .select()
    .from(meterChange)
    .where(and(eq(meterChange.groupId, groupId), eq(meterChange.registration, registration)));
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
  const moves = await db
    .select()
    .from(componentMove)
    .where(and(eq(componentMove.groupId, groupId), eq(componentMove.registration, registration)))
    .orderBy(asc(componentMove.id));
  return moves.reduce<AircraftRecord>(
    (record, { at, component, fitted, position, totals, as }) =>
      withMove(record, {
        at: fromDb(at),
        totals,
        ...(fitted && as ? { fitted: as, ...(position !== null && { position }) } : { component }),
      } as Parameters<typeof withMove>[1]),
    { ...row.body, meters: row.body.meters.map(changed) },
  );
}
