import { setImmediate as nextTurn, setTimeout as sleep } from "node:timers/promises";
import { canonicalJson, deedOf, isForEveryone, type Principal, type Subject, whyNot } from "@cravix/contract";
import {
  type EventType,
  type PreflightEvent,
  recordOrder,
  type StreamKind,
} from "@cravix/core/checklist/stream/events";
import { isAboutDiscrepancy } from "@cravix/core/checklist/stream/fold-discrepancies";
import { and, eq, inArray, sql } from "drizzle-orm";
import { newProblem, recordProblems } from "../airworthiness/record-problems";
import type { Db, Tx } from "../db/database";
import { isBadData, isBusy, isOfDatabase } from "../db/database-error";
import { toDb } from "../db/moment";
import { event as eventTable, stream as streamTable } from "../db/schema/checklist";
import { crew } from "../db/schema/fleet";
import { yieldingLoop } from "../fairness/yielding-loop";
import { PROJECTIONS } from "../projections";
import type { ProjectionName } from "../projections/projection";
import { type FoldedStream, foldStream, type TouchedStream } from "../record/fold-streams";
import { lockSubjects, subjectOf } from "../record/lock-subjects";
import { readCounted, readEvents } from "../record/read-events";
import { kindOf } from "./kinds";
import { type Admission, type EventKind, type Fault, isDecidedOnRecord } from "./kinds/event-kind";
import { touchedBy } from "./touched-discrepancies";

export interface AppendOutcome {
  taken: number;
  repeated: number;
  /** Ids already on record with different content; the record is kept. */
  conflicting: string[];
  /** Events that contradict the record, by id, with the reason. */
  refused: Map<string, Fault>;
  /** Errors of our own, for the log; their events are refused. */
  errors: unknown[];
}

/** Where and when events are appended. */
export interface AppendOptions {
  groupId: string;
  now: Date;
}

const RETRIES = 8;
/** Streams per transaction. */
const STREAMS_AT_ONCE = 16;
/** Streams read per query, to bound the time for serialising. */
const READ_AT_ONCE = 4;
/** Maximum events per stream. */
export const MAX_STREAM_EVENTS = 4000;
const COLUMNS =
  "id, group_id, stream_id, device_id, crew_id, type, at, received_at, discrepancy_id, undoes_id, data";
/** Columns that keep their defaults for most events. */
const MORE_COLUMNS = "stream, device_at";

const nothing = (): AppendOutcome => ({
  taken: 0,
  repeated: 0,
  conflicting: [],
  refused: new Map(),
  errors: [],
});

/**
 * Appends events and updates the tables that follow from them. Repeats are harmless, order does not matter; a rejected event does
 * not affect others. Events are admitted in the order in which they happened, so that each sees those of its batch before it.
 */
export async function appendEvents(
  db: Db,
  events: readonly PreflightEvent[],
  options: AppendOptions,
): Promise<AppendOutcome> {
  const outcome = nothing();
  for (const part of partsOf(recordOrder(events))) add(outcome, await appendPart(db, part, options));
  return outcome;
}

/**
 * Cuts a batch into transactions: an event whose admission depends on the record begins one, so that it sees those before it. Those
 * after it do not depend on the record and can share its transaction.
 */
function partsOf(events: readonly PreflightEvent[]): PreflightEvent[][] {
  const parts: PreflightEvent[][] = [];
  let part: PreflightEvent[] = [];
  let streams = new Set<string>();
  const close = () => {
    if (part.length > 0) parts.push(part);
    part = [];
    streams = new Set();
  };
  for (const event of events) {
    const full = streams.size === STREAMS_AT_ONCE && !streams.has(event.streamId);
    if (full || isDecidedOnRecord(kindOf(event), event)) close();
    part.push(event);
    streams.add(event.streamId);
  }
  close();
  return parts;
}

function add(to: AppendOutcome, { taken, repeated, conflicting, refused, errors }: AppendOutcome): void {
  to.taken += taken;
  to.repeated += repeated;
  to.conflicting.push(...conflicting);
  to.errors.push(...errors);
  for (const [id, why] of refused) to.refused.set(id, why);
}

const BAD_DATA: Fault = {
  field: "data",
  reason: "The database rejected these values. Check them, then send the event again.",
};
const CONTRADICTION: Fault = {
  field: "data",
  reason: "This event contradicts what is on record and cannot be added to it.",
};

async function appendPart(
  db: Db,
  events: readonly PreflightEvent[],
  options: AppendOptions,
): Promise<AppendOutcome> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await db.transaction((tx) => append(tx, events, options));
    } catch (error) {
      // Another transaction was first, here or on another database server: retry after a random delay.
      if (isBusy(error) && attempt < RETRIES) {
        await sleep(Math.random() * 15 * attempt);
        continue;
      }
      const badData = isBadData(error);
      if (isBusy(error) || (isOfDatabase(error) && !badData)) throw error;
      // One event cannot be stored or folded: the others must not suffer.
      const [first] = events;
      if (first && events.length === 1 && error instanceof Contradiction)
        return { ...nothing(), refused: new Map([[first.id, { field: "data", reason: error.problem }]]) };
      if (first && events.length === 1)
        return {
          ...nothing(),
          refused: new Map([[first.id, badData ? BAD_DATA : CONTRADICTION]]),
          errors: badData ? [] : [error],
        };
      const half = Math.ceil(events.length / 2);
      const outcome = await appendPart(db, events.slice(0, half), options);
      add(outcome, await appendPart(db, events.slice(half), options));
      return outcome;
    }
  }
}

async function append(
  tx: Tx,
  events: readonly PreflightEvent[],
  { groupId, now }: AppendOptions,
): Promise<AppendOutcome> {
  const outcome = nothing();
  const refuse = (event: PreflightEvent, field: string, reason: string) =>
    outcome.refused.set(event.id, { field, reason });
  const { streams, kinds } = await lockStreams(tx, events, groupId, refuse);
  for (const stream of streams) keepNew(stream, outcome, refuse);
  const discrepancies = [...new Set(streams.flatMap(touchedBy))];
  await lockSubjects(tx, [
    ...discrepancies.map(subjectOf.discrepancy),
    ...streams.flatMap(({ added }) =>
      added.flatMap((event) => kindOf(event).subjects?.(event, groupId) ?? []),
    ),
  ]);
  await refuseClaimed(tx, streams, refuse);
  await refuseUnfit(tx, streams, { groupId, now }, refuse);

  const unfoldable: PreflightEvent[] = [];
  const turn = yieldingLoop();
  const fold = async () => {
    const folded: FoldedStream[] = [];
    for (const stream of streams.filter(({ added }) => added.length > 0)) {
      const made = foldStream(stream);
      folded.push(made.folded);
      unfoldable.push(...made.unfoldable);
      // Sixteen streams of maximum length take half a second: yield.
      await turn.pause();
    }
    return folded;
  };
  const added = streams.flatMap((stream) => stream.added);
  if (added.length === 0) return outcome;
  // Fold while the database inserts. No other statement is sent meanwhile, because after a deadlock it would run outside the
  // transaction.
  const [inserted, firstFold] = await Promise.all([
    insertEvents(tx, added, now, groupId),
    nextTurn().then(fold),
  ]);
  let folded = firstFold;
  if (inserted < added.length || unfoldable.length > 0) {
    await takeOut(tx, streams, unfoldable, inserted < added.length, outcome, refuse);
    folded = await fold();
  }
  outcome.taken = streams.reduce((sum, stream) => sum + stream.added.length, 0);
  if (outcome.taken === 0) return outcome;
  const byId = new Map(streams.map((stream) => [stream.id, stream]));
  const batch = {
    groupId,
    discrepancies,
    streams: folded.flatMap((one) => {
      const stream = byId.get(one.id);
      return stream ? [{ stream, folded: one, kind: kinds.get(one.id) ?? "preflight" }] : [];
    }),
  };
  const calculable = streams.flatMap((stream) =>
    stream.added.flatMap((event) => kindOf(event).calculable?.(event) ?? []),
  );
  const problems = async () =>
    new Map(
      await Promise.all(
        calculable.map(async (one) => [one, await recordProblems(tx, groupId, one, now)] as const),
      ),
    );
  const before = await problems();
  for (const name of tablesOf(streams)) await PROJECTIONS[name].write(tx, batch);
  for (const [registration, after] of await problems()) {
    const problem = newProblem(before.get(registration) ?? new Map(), after);
    if (problem !== undefined) throw new Contradiction(problem);
  }
  return outcome;
}

/** Rolls an event back after which a due item could not be calculated any more. */
class Contradiction extends Error {
  constructor(readonly problem: string) {
    super("The event contradicts what is on record.");
  }
}

/** Tables that the added events change, in the order in which they are written. */
function tablesOf(streams: readonly TouchedStream[]): ProjectionName[] {
  const changed = new Set(streams.flatMap(({ added }) => added.flatMap((event) => kindOf(event).rows)));
  return (Object.keys(PROJECTIONS) as ProjectionName[]).filter((name) => changed.has(name));
}

type Refuse = (event: PreflightEvent, field: string, reason: string) => void;

/** Locks streams in a fixed order, and reads their events. */
async function lockStreams(tx: Tx, events: readonly PreflightEvent[], groupId: string, refuse: Refuse) {
  const kindOfStream = (event: PreflightEvent): StreamKind => event.stream ?? "preflight";
  const first = new Map<string, StreamKind>();
  for (const event of events) if (!first.has(event.streamId)) first.set(event.streamId, kindOfStream(event));
  const rows = sql.param(
    [...first].sort(([a], [b]) => (a < b ? -1 : 1)).map(([id, kind]) => [id, groupId, kind]),
  );
  const [locked] = await tx.execute(sql`insert into ${streamTable} (id, group_id, kind) values ${rows}
    on duplicate key update seen = 1, version = version + 1
    returning id, group_id as groupId, kind, seen`);
  const known = locked as unknown as { id: string; groupId: string; kind: StreamKind; seen: number }[];
  const kinds = new Map(known.map(({ id, kind }) => [id, kind]));
  const foreign = new Set(known.filter((row) => row.groupId !== groupId).map((row) => row.id));
  const fits = (event: PreflightEvent) => {
    const good = !foreign.has(event.streamId) && kinds.get(event.streamId) === kindOfStream(event);
    if (!good) refuse(event, "streamId", "This id already belongs to another record.");
    return good;
  };
  const seen = known.filter((row) => row.seen === 1 && !foreign.has(row.id)).map((row) => row.id);
  const stored: Awaited<ReturnType<typeof readCounted>> = [];
  for (let i = 0; i < seen.length; i += READ_AT_ONCE)
    stored.push(...(await readCounted(tx, inArray(eventTable.streamId, seen.slice(i, i + READ_AT_ONCE)))));
  const streams = new Map<string, TouchedStream>(
    known.map(({ id }) => [id, { id, seen: seen.includes(id), stored: [], added: [] }]),
  );
  for (const one of stored) streams.get(one.event.streamId)?.stored.push(one);
  for (const event of events) if (fits(event)) streams.get(event.streamId)?.added.push(event);
  return { streams: [...streams.values()], kinds };
}

/** Keeps new, consistent events; counts repeats and names conflicting ids. */
function keepNew(stream: TouchedStream, outcome: AppendOutcome, refuse: Refuse): void {
  const known = new Map(stream.stored.map(({ event }) => [event.id, event]));
  const starts = [...stream.stored.map(({ event }) => event), ...stream.added].filter(
    (event) => event.type === "preflight.started",
  );
  // A preflight starts once: with the event that gave it its id, else the recorded one, else the first.
  const start =
    starts.find((event) => event.id === stream.id) ??
    starts.find((event) => known.has(event.id)) ??
    recordOrder(starts)[0];
  let room = MAX_STREAM_EVENTS - stream.stored.length;
  stream.added = stream.added.filter((event) => {
    const before = known.get(event.id);
    if (before) {
      if (canonical(before) === canonical(event)) outcome.repeated++;
      else outcome.conflicting.push(event.id);
      return false;
    }
    if (event.type === "preflight.started" && event !== start && event.id !== start?.id) {
      refuse(event, "streamId", "This preflight has already been started by another event.");
      return false;
    }
    if (room-- <= 0) {
      refuse(event, "streamId", `A preflight can have at most ${MAX_STREAM_EVENTS} events.`);
      return false;
    }
    return true;
  });
}

/**
 * A discrepancy has the id of the event that logs it. Older devices assign their own id: accepted if unused, and rejected if
 * another opening has it.
 */
async function refuseClaimed(tx: Tx, streams: readonly TouchedStream[], refuse: Refuse): Promise<void> {
  const named = streams
    .flatMap((stream) => stream.added)
    .filter((event) => event.type === "discrepancy.opened" && event.data.discrepancyId !== event.id);
  if (named.length === 0) return;
  const ids = named.flatMap((event) => (isAboutDiscrepancy(event) ? [event.data.discrepancyId] : []));
  const owners = new Map<string, string>();
  const openings = await readEvents(
    tx,
    and(inArray(eventTable.discrepancyId, ids), eq(eventTable.type, "discrepancy.opened")),
  );
  for (const event of [...openings, ...recordOrder(streams.flatMap((stream) => stream.added))]) {
    if (event.type !== "discrepancy.opened") continue;
    const { discrepancyId } = event.data;
    if (!owners.has(discrepancyId) || event.id === discrepancyId) owners.set(discrepancyId, event.id);
  }
  keepOnly(streams, (event) => {
    if (event.type !== "discrepancy.opened" || owners.get(event.data.discrepancyId) === event.id) return true;
    refuse(
      event,
      "data.discrepancyId",
      "Another discrepancy already has this id. Use the id of the event that logs the new discrepancy.",
    );
    return false;
  });
}

function keepOnly(streams: readonly TouchedStream[], keep: (event: PreflightEvent) => boolean): void {
  for (const stream of streams) stream.added = stream.added.filter(keep);
}

/** Asks of each event, under the locks of its subjects, whether its author may record it and whether it fits the record. */
async function refuseUnfit(
  tx: Tx,
  streams: readonly TouchedStream[],
  { groupId, now }: AppendOptions,
  refuse: Refuse,
): Promise<void> {
  // What every member may do needs no role, and membership has been checked.
  const added = streams
    .flatMap((stream) => stream.added)
    .filter((event) => isDecidedOnRecord(kindOf(event), event) || !isForEveryone(deedOf(event)));
  if (added.length === 0) return;
  const members = await membersOf(tx, groupId, new Set(added.map(({ crewId }) => crewId)));
  const out = new Set<string>();
  for (const event of added) {
    const kind = kindOf(event);
    const principal = members.get(event.crewId);
    // Most kinds ask nothing of the record: five hundred of them must not wait five hundred times.
    const fault =
      principal && isDecidedOnRecord(kind, event)
        ? await decide({ tx, groupId, now, principal }, kind, event)
        : permissionFault(principal, event);
    if (!fault) continue;
    refuse(event, fault.field, fault.reason);
    out.add(event.id);
  }
  if (out.size > 0) keepOnly(streams, ({ id }) => !out.has(id));
}

async function decide(
  admission: Admission,
  kind: EventKind<EventType>,
  event: PreflightEvent,
): Promise<Fault | undefined> {
  const before = await kind.before?.(admission, event);
  const subject = await kind.subject?.(admission, event);
  return permissionFault(admission.principal, event, before, subject) ?? kind.admit?.(admission, event);
}

function permissionFault(
  principal: Principal | undefined,
  event: PreflightEvent,
  before?: string,
  subject?: Subject,
): Fault | undefined {
  const reason = whyNot(principal, deedOf(event, before), subject);
  return reason === undefined ? undefined : { field: "crewId", reason };
}

/** Members with their roles of this moment. */
async function membersOf(tx: Tx, groupId: string, ids: ReadonlySet<string>) {
  const rows = await tx
    .select({ id: crew.id, name: crew.name, role: crew.role })
    .from(crew)
    .where(and(eq(crew.groupId, groupId), inArray(crew.id, [...ids])));
  return new Map(rows.map((member) => [member.id, member]));
}

/** Removes unacceptable events from the streams and the table: ids of another stream, events that cannot be folded. */
async function takeOut(
  tx: Tx,
  streams: readonly TouchedStream[],
  unfoldable: readonly PreflightEvent[],
  some: boolean,
  outcome: AppendOutcome,
  refuse: Refuse,
): Promise<void> {
  for (const event of unfoldable)
    refuse(event, "data", "This event contradicts the other events of its preflight.");
  const out = new Set(unfoldable.map((event) => event.id));
  if (out.size > 0) await tx.delete(eventTable).where(inArray(eventTable.id, [...out]));
  if (some) {
    const ids = streams.flatMap((stream) => stream.added.map((event) => event.id));
    const onRecord = await readEvents(tx, inArray(eventTable.id, ids));
    const home = new Map(onRecord.map((event) => [event.id, event.streamId]));
    for (const { added } of streams)
      for (const event of added)
        if (!out.has(event.id) && home.get(event.id) !== event.streamId) {
          outcome.conflicting.push(event.id);
          out.add(event.id);
        }
  }
  keepOnly(streams, (event) => !out.has(event.id));
}

/** Inserts events in one statement and returns the number of new ones. Literals instead of placeholders, for speed. */
async function insertEvents(
  tx: Tx,
  events: readonly PreflightEvent[],
  now: Date,
  groupId: string,
): Promise<number> {
  const receivedAt = toDb(now.toISOString());
  const usual = events.every((event) => !event.stream && !event.deviceAt);
  const rows = events.map((event) =>
    usual ? toRow(event, groupId, receivedAt) : [...toRow(event, groupId, receivedAt), ...more(event)],
  );
  const columns = usual ? COLUMNS : `${COLUMNS}, ${MORE_COLUMNS}`;
  const [result] = await tx.execute(
    sql`insert ignore into event (${sql.raw(columns)}) values ${sql.param(rows)}`,
  );
  return (result as unknown as { affectedRows: number }).affectedRows;
}

const toRow = (e: PreflightEvent, groupId: string, receivedAt: string) => [
  e.id,
  groupId,
  e.streamId,
  e.deviceId,
  e.crewId,
  e.type,
  toDb(e.at),
  receivedAt,
  isAboutDiscrepancy(e) ? e.data.discrepancyId : null,
  e.type === "item.undone" ? e.data.eventId : null,
  JSON.stringify(e.data),
];

const more = (e: PreflightEvent) => [e.stream ?? "preflight", e.deviceAt ? toDb(e.deviceAt) : null];

/**
 * Canonical content of an event, independent of key order and rules. Its time is that of the device, which does not change when it
 * is corrected.
 */
const canonical = ({ rules: _rules, stream, at, deviceAt, ...event }: PreflightEvent) =>
  canonicalJson({ ...event, stream: stream ?? "preflight", at: deviceAt ?? at });
