import type { PreflightState } from "@cravix/core/checklist/stream/preflight-state";
import { fluidRowsOf } from "@cravix/core/logs/fluid-rows";
import { inArray } from "drizzle-orm";
import { orNull, toDb } from "../db/moment";
import { preflight, reading } from "../db/schema/checklist";
import { fluidLog } from "../db/schema/fluids";
import { upsert } from "../db/upsert";
import { toFluidRow } from "../fluids/write-fluids";
import type { Batch, StreamProjection } from "./projection";
import { storedRow } from "./stored-row";

const preflightsOf = ({ streams }: Batch) => streams.filter(({ kind }) => kind === "preflight");
/** Streams with rows on record that may no longer follow from it: something may have been undone. */
const seenOf = (streams: Batch["streams"]) =>
  streams.flatMap(({ folded }) => (folded.seen ? [folded.id] : []));

const toPreflightRow = (
  groupId: string,
  state: PreflightState,
  count: number,
): typeof preflight.$inferInsert => ({
  id: state.id,
  groupId: groupId,
  registration: state.registration ?? null,
  crewId: state.crewId ?? null,
  listHash: state.listHash ?? null,
  startedAt: orNull(state.startedAt),
  lastAt: orNull(state.lastAt),
  conditions: state.conditions,
  answered: Object.keys(state.answers).length,
  found: state.discrepancies.length,
  verdict: state.signed?.verdict ?? null,
  decision: state.signed?.decision ?? null,
  signedAt: orNull(state.signed?.at),
  eventCount: count,
});

/** One row per preflight. */
export const preflightProjection: StreamProjection = {
  name: "preflight",
  per: "stream",
  write: (tx, batch) =>
    upsert(
      tx,
      preflight,
      preflightsOf(batch).map(({ folded }) => toPreflightRow(batch.groupId, folded.state, folded.count)),
    ),
  rows: (groupId, { kind, state, events }) =>
    kind === "preflight" ? [toPreflightRow(groupId, state, events.length)] : [],
  stored: async (db, ids) =>
    (
      await db
        .select()
        .from(preflight)
        .where(inArray(preflight.id, [...ids]))
    ).map((row) => ({ streamId: row.id, row: storedRow(preflight, row) })),
};

/** Readings of a preflight, with the person who read them. */
const toReadingRows = (groupId: string, state: PreflightState) =>
  Object.entries(state.readings).map(([key, r]) => ({
    preflightId: state.id,
    groupId: groupId,
    key,
    registration: state.registration ?? null,
    value: r.value,
    unit: r.unit,
    at: toDb(r.at),
    crewId: r.crewId,
  }));

/** One row per reading of a preflight. */
export const readingProjection: StreamProjection = {
  name: "reading",
  per: "stream",
  async write(tx, batch) {
    const walks = preflightsOf(batch);
    const seen = seenOf(walks);
    if (seen.length > 0) await tx.delete(reading).where(inArray(reading.preflightId, seen));
    await upsert(
      tx,
      reading,
      walks.flatMap(({ folded }) => toReadingRows(batch.groupId, folded.state)),
    );
  },
  rows: (groupId, { kind, state }) => (kind === "preflight" ? toReadingRows(groupId, state) : []),
  stored: async (db, ids) =>
    (
      await db
        .select()
        .from(reading)
        .where(inArray(reading.preflightId, [...ids]))
    ).map((row) => ({ streamId: row.preflightId, row: storedRow(reading, row) })),
};

/** Identical entries of one stream are one row. */
const toFluidRows = (groupId: string, state: PreflightState) => [
  ...new Map(
    fluidRowsOf(state)
      .map((row) => toFluidRow(groupId, row, state.id))
      .map((row) => [row.id, row]),
  ).values(),
];

/** One row per entry of the fuel and oil logs. */
export const fluidProjection: StreamProjection = {
  name: "fluid_log",
  per: "stream",
  async write(tx, { groupId, streams }) {
    const seen = seenOf(streams);
    if (seen.length > 0) await tx.delete(fluidLog).where(inArray(fluidLog.streamId, seen));
    await upsert(
      tx,
      fluidLog,
      streams.flatMap(({ folded }) => toFluidRows(groupId, folded.state)),
    );
  },
  rows: (groupId, { state }) => toFluidRows(groupId, state),
  stored: async (db, ids) =>
    (
      await db
        .select()
        .from(fluidLog)
        .where(inArray(fluidLog.streamId, [...ids]))
    ).map((row) => ({ streamId: row.streamId, row: storedRow(fluidLog, row) })),
};
