import type { AircraftRecord, RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import {
  applyComponentMove,
  type ComponentSnapshot,
  componentAsItIs,
  sharedComponentId,
} from "@cravix/core/airworthiness/component-moves";
import type { WorkDone } from "@cravix/core/airworthiness/due/due-item";
import { calculated } from "@cravix/core/airworthiness/due/problem-of";
import { readTotals } from "@cravix/core/logs/apply-airworthiness-events";
import { and, asc, eq, inArray, isNotNull } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb } from "../db/moment";
import { airworthiness, componentMove, meterChange, workDone } from "../db/schema/airworthiness";
import { STANDING } from "./standing-works";

/** A component in storage: as it was when removed, from which aircraft, and when. */
export type OnShelf = ComponentSnapshot & {
  from: string;
  at: string;
  /** Why its times cannot be calculated; they are then those of its file. */
  problem?: string;
};

/** An aircraft's record after everything that changed it. */
interface History {
  record: AircraftRecord;
  /** Removed components by the id of the removal. */
  removed: Map<string, OnShelf>;
}

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
  const histories = await readHistories(db, groupId, registrations);
  return new Map([...histories].map(([registration, { record }]) => [registration, record]));
}

type Move = typeof componentMove.$inferSelect;

async function readHistories(
  db: Db | Tx,
  groupId: string,
  registrations: readonly string[],
): Promise<Map<string, History>> {
  if (registrations.length === 0) return new Map();
  const of = <T extends typeof airworthiness | typeof meterChange | typeof componentMove | typeof workDone>(
    table: T,
  ) => and(eq(table.groupId, groupId), inArray(table.registration, [...registrations]));
  const rows = await db.select().from(airworthiness).where(of(airworthiness));
  if (rows.length === 0) return new Map();
  const changes = await db.select().from(meterChange).where(of(meterChange));
  const moves = await db
    .select()
    .from(componentMove)
    .where(of(componentMove))
    .orderBy(asc(componentMove.at), asc(componentMove.id));
  // A removed component takes its works with it.
  const works = moves.some(({ fitted }) => !fitted)
    ? await db
        .select()
        .from(workDone)
        .where(and(of(workDone), isNotNull(workDone.work), STANDING))
    : [];
  const own = <T extends { registration: string }>(all: readonly T[], registration: string) =>
    all.filter((one) => one.registration === registration);
  return new Map(
    rows.map(({ registration, body }) => [
      registration,
      historyOf(
        { ...body, meters: withChanges(body.meters, own(changes, registration)) },
        own(moves, registration),
        own(works, registration),
      ),
    ]),
  );
}

function withChanges(
  meters: readonly RecordMeter[],
  changes: readonly (typeof meterChange.$inferSelect)[],
): RecordMeter[] {
  return meters.map((meter) => {
    const own = changes
      .filter((change) => change.meter === meter.id)
      .map(({ at, oldReading, newReading }) => ({ at: fromDb(at), oldReading, newReading }));
    return own.length === 0
      ? meter
      : {
          ...meter,
          changes: [...(meter.changes ?? []), ...own].sort((a, b) => a.at.localeCompare(b.at)),
        };
  });
}

/** Applies moves in the order of their times. One that contradicts the record is left out. */
function historyOf(
  begin: AircraftRecord,
  moves: readonly Move[],
  works: readonly (typeof workDone.$inferSelect)[],
): History {
  const removed: History["removed"] = new Map();
  // Components that came from elsewhere have an id of the group already.
  const came = new Set(moves.flatMap(({ as }) => as?.component.id ?? []));
  let record = begin;
  for (const { id, at, component, fitted, position, totals, as } of moves) {
    if (!fitted) {
      const before = works.filter((work) => (work.at ?? work.date) <= at);
      const shared = came.has(component) ? component : sharedComponentId(record.registration, component);
      const shelved = onShelf(record, component, shared, fromDb(at), totals, before);
      if (shelved) removed.set(id, shelved);
    }
    const move =
      fitted && as
        ? { at: fromDb(at), totals, fitted: as, ...(position !== null && { position }) }
        : { at: fromDb(at), totals, component };
    const now = calculated(() => applyComponentMove(record, move));
    if ("value" in now) record = now.value;
  }
  return { record, removed };
}

function onShelf(
  record: AircraftRecord,
  id: string,
  shared: string,
  at: string,
  totals: Move["totals"],
  works: readonly (typeof workDone.$inferSelect)[],
): OnShelf | undefined {
  const from = record.registration;
  const component = record.components.find((one) => one.id === id);
  if (!component) return undefined;
  const done = works.flatMap((row) => workOf(row, record.meters) ?? []);
  const as = calculated(() => componentAsItIs(record, id, totals, done, shared));
  if ("value" in as) return as.value && { ...as.value, from, at };
  const items = record.items.filter(({ of }) => of === id).map((item) => ({ ...item, of: shared }));
  return { component: { ...component, id: shared }, items, works: [], from, at, problem: as.problem };
}

/** A stored work with its totals, from the readings entered and the meters now on record. */
export function workOf(
  { work, readings, at }: typeof workDone.$inferSelect,
  meters: readonly RecordMeter[],
): WorkDone | undefined {
  if (!work) return undefined;
  const read =
    readings && at !== null ? calculated(() => readTotals(readings, meters, fromDb(at))) : undefined;
  return { ...work, totals: { ...(read && "value" in read && read.value), ...work.totals } };
}

/** Components removed and not fitted since. */
export async function readShelf(db: Db | Tx, groupId: string): Promise<OnShelf[]> {
  const moves = await db
    .select()
    .from(componentMove)
    .where(eq(componentMove.groupId, groupId))
    .orderBy(asc(componentMove.at), asc(componentMove.id));
  const last = new Map<string, Move>();
  const came = new Set(
    moves.flatMap(({ registration, as }) => (as ? `${registration} ${as.component.id}` : [])),
  );
  for (const move of moves) {
    const { registration, component, as } = move;
    const own = came.has(`${registration} ${component}`)
      ? component
      : sharedComponentId(registration, component);
    last.set(as?.component.id ?? own, move);
  }
  const waiting = [...last.values()].filter(({ fitted }) => !fitted);
  const histories = await readHistories(db, groupId, [
    ...new Set(waiting.map(({ registration }) => registration)),
  ]);
  return waiting.flatMap(({ id, registration }) => histories.get(registration)?.removed.get(id) ?? []);
}
