import { setImmediate as nextTurn, setTimeout as sleep } from "node:timers/promises";
import { canonicalJson } from "@cravix/contract";
import { isAboutDiscrepancy, type PreflightEvent, type StreamKind } from "@cravix/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import { projectFlights } from "../airworthiness/project-flights";
import { projectMoves } from "../airworthiness/project-moves";
import { projectPeople } from "../airworthiness/project-people";
import { projectWorks } from "../airworthiness/project-works";
import { projectPlan } from "../airworthiness/workshop-plan";
import type { Db, Tx } from "../db/database";
import { isBadData, isBusy } from "../db/database-error";
import { toDb } from "../db/moment";
import { event as eventTable, stream as streamTable } from "../db/schema/checklist";
import { HOME_GROUP } from "../db/schema/group";
import { yieldingLoop } from "../yielding-loop";
import { type FoldedStream, foldStream, type TouchedStream } from "./fold-streams";
import { lockDiscrepancies, projectDiscrepancies, touchedBy, writeCounts } from "./project-discrepancies";
import { writeStreams } from "./project-preflights";
import { readCounted, readEvents } from "./read-events";

export interface AppendOutcome {
  taken: number;
  repeated: number;
  /** Ids already on record with different content; the record is kept. */
  conflicting: string[];
  /** Events that contradict the record, by id, with the reason. */
  refused: Map<string, { field: string; reason: string }>;
}

const RETRIES = 8;
/** Streams per transaction. */
const STREAMS_AT_ONCE = 16;
/** Streams read per query, to bound the time for serialising. */
const READ_AT_ONCE = 4;
/** Maximum events per stream. */
export const MAX_STREAM_EVENTS = 4000;
const COLUMNS = "id, stream_id, device_id, crew_id, type, at, received_at, discrepancy_id, undoes_id, data";
/** Columns that keep their defaults for most events. */
const MORE_COLUMNS = "group_id, stream, device_at";

const nothing = (): AppendOutcome => ({ taken: 0, repeated: 0, conflicting: [], refused: new Map() });

/**
 * Appends events and updates the projections, each stream in one transaction. Repeats are harmless, order does not matter; a
 * rejected event does not affect others.
 */
export async function appendEvents(
  db: Db,
  events: readonly PreflightEvent[],
  now: Date,
  groupId = HOME_GROUP,
): Promise<AppendOutcome> {
  const byStream = new Map<string, PreflightEvent[]>();
  for (const event of events) {
    const stream = byStream.get(event.streamId);
    if (stream) stream.push(event);
    else byStream.set(event.streamId, [event]);
  }
  const streams = [...byStream].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, own]) => own);
  const outcome = nothing();
  for (let i = 0; i < streams.length; i += STREAMS_AT_ONCE) {
    const part = streams.slice(i, i + STREAMS_AT_ONCE).flat();
    add(outcome, await appendPart(db, part, now, groupId));
  }
  return outcome;
}

function add(to: AppendOutcome, { taken, repeated, conflicting, refused }: AppendOutcome): void {
  to.taken += taken;
  to.repeated += repeated;
  to.conflicting.push(...conflicting);
  for (const [id, why] of refused) to.refused.set(id, why);
}

async function appendPart(
  db: Db,
  events: readonly PreflightEvent[],
  now: Date,
  groupId: string,
): Promise<AppendOutcome> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await db.transaction((tx) => append(tx, events, now, groupId));
    } catch (error) {
      // Deadlock: retry after a random delay.
      if (isBusy(error) && attempt < RETRIES) {
        await sleep(Math.random() * 15 * attempt);
        continue;
      }
      if (!isBadData(error)) throw error;
      // The database rejects a value that validation accepted: other events must not suffer.
      const [first] = events;
      if (first && events.length === 1)
        return {
          ...nothing(),
          refused: new Map([
            [
              first.id,
              {
                field: "data",
                reason: "The database rejected these values. Check them, then send the event again.",
              },
            ],
          ]),
        };
      const half = Math.ceil(events.length / 2);
      const outcome = await appendPart(db, events.slice(0, half), now, groupId);
      add(outcome, await appendPart(db, events.slice(half), now, groupId));
      return outcome;
    }
  }
}

async function append(
  tx: Tx,
  events: readonly PreflightEvent[],
  now: Date,
  groupId: string,
): Promise<AppendOutcome> {
  const outcome = nothing();
  const refuse = (event: PreflightEvent, field: string, reason: string) =>
    outcome.refused.set(event.id, { field, reason });
  const { streams, kinds } = await lockStreams(tx, events, groupId, refuse);
  for (const stream of streams) admit(stream, outcome, refuse);
  const discrepancies = [...new Set(streams.flatMap(touchedBy))];
  await lockDiscrepancies(tx, discrepancies);
  await refuseClaimed(tx, streams, refuse);

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
  const isWalk = ({ id }: FoldedStream) => kinds.get(id) === "preflight";
  await writeStreams(
    tx,
    groupId,
    folded.filter(isWalk),
    folded.filter((stream) => !isWalk(stream)),
  );
  await projectFlights(
    tx,
    groupId,
    streams.filter(({ id, added: more }) => kinds.get(id) === "flight" && more.length > 0),
  );
  const ofKind = (kind: StreamKind) =>
    streams.filter(({ id }) => kinds.get(id) === kind).flatMap((stream) => stream.added);
  await projectWorks(tx, groupId, ofKind("aircraft"));
  await projectMoves(tx, groupId, ofKind("aircraft"));
  await projectPeople(tx, groupId, ofKind("person"));
  await projectPlan(tx, groupId, ofKind("workshop"));
  await writeCounts(tx, folded);
  await projectDiscrepancies(tx, groupId, discrepancies, folded);
  return outcome;
}

type Refuse = (event: PreflightEvent, field: string, reason: string) => void;

/** Locks streams in a fixed order, and reads their events. */
async function lockStreams(tx: Tx, events: readonly PreflightEvent[], groupId: string, refuse: Refuse) {
  const kindOf = (event: PreflightEvent): StreamKind => event.stream ?? "preflight";
  const first = new Map<string, StreamKind>();
  for (const event of events) if (!first.has(event.streamId)) first.set(event.streamId, kindOf(event));
  const rows = sql.param(
    [...first].sort(([a], [b]) => (a < b ? -1 : 1)).map(([id, kind]) => [id, groupId, kind]),
  );
  const [locked] = await tx.execute(sql`insert into ${streamTable} (id, group_id, kind) values ${rows}
    on duplicate key update seen = 1 returning id, group_id as groupId, kind, seen`);
  const known = locked as unknown as { id: string; groupId: string; kind: StreamKind; seen: number }[];
  const kinds = new Map(known.map(({ id, kind }) => [id, kind]));
  const foreign = new Set(known.filter((row) => row.groupId !== groupId).map((row) => row.id));
  const fits = (event: PreflightEvent) => {
    const good = !foreign.has(event.streamId) && kinds.get(event.streamId) === kindOf(event);
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
function admit(stream: TouchedStream, outcome: AppendOutcome, refuse: Refuse): void {
  const known = new Map(stream.stored.map(({ event }) => [event.id, event]));
  const starts = [...stream.stored.map(({ event }) => event), ...stream.added].filter(
    (event) => event.type === "preflight.started",
  );
  // A preflight starts once: with the event that gave it its id, else the recorded one, else the first.
  const start =
    starts.find((event) => event.id === stream.id) ??
    starts.find((event) => known.has(event.id)) ??
    starts.sort((a, b) => (a.id < b.id ? -1 : 1))[0];
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
  const all = streams.flatMap((stream) => stream.added).sort((a, b) => (a.id < b.id ? -1 : 1));
  for (const event of [...openings, ...all]) {
    if (event.type !== "discrepancy.opened") continue;
    const { discrepancyId } = event.data;
    if (!owners.has(discrepancyId) || event.id === discrepancyId) owners.set(discrepancyId, event.id);
  }
  for (const stream of streams)
    stream.added = stream.added.filter((event) => {
      if (event.type !== "discrepancy.opened" || owners.get(event.data.discrepancyId) === event.id)
        return true;
      refuse(
        event,
        "data.discrepancyId",
        "Another discrepancy already has this id. Use the id of the event that logs the new discrepancy.",
      );
      return false;
    });
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
  for (const stream of streams) stream.added = stream.added.filter((event) => !out.has(event.id));
}

/** Inserts events in one statement and returns the number of new ones. Literals instead of placeholders, for speed. */
async function insertEvents(
  tx: Tx,
  events: readonly PreflightEvent[],
  now: Date,
  groupId: string,
): Promise<number> {
  const receivedAt = toDb(now.toISOString());
  const usual = groupId === HOME_GROUP && events.every((e) => !e.stream && !e.deviceAt);
  const rows = events.map((e) =>
    usual ? toRow(e, receivedAt) : [...toRow(e, receivedAt), ...more(e, groupId)],
  );
  const columns = usual ? COLUMNS : `${COLUMNS}, ${MORE_COLUMNS}`;
  const [result] = await tx.execute(
    sql`insert ignore into event (${sql.raw(columns)}) values ${sql.param(rows)}`,
  );
  return (result as unknown as { affectedRows: number }).affectedRows;
}

const more = (e: PreflightEvent, groupId: string) => [
  groupId,
  e.stream ?? "preflight",
  e.deviceAt ? toDb(e.deviceAt) : null,
];

const toRow = (e: PreflightEvent, receivedAt: string) => [
  e.id,
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

/** Canonical content of an event, independent of key order and rules. */
const canonical = ({ rules: _rules, stream, ...event }: PreflightEvent) =>
  canonicalJson({ ...event, stream: stream ?? "preflight" });
