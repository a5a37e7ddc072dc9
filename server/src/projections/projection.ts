import type { PreflightEvent, StreamKind } from "@cravix/core/checklist/stream/events";
import type { PreflightState } from "@cravix/core/checklist/stream/preflight-state";
import type { Db, Tx } from "../db/database";
import type { FoldedStream, TouchedStream } from "../record/fold-streams";

/** Tables that follow from the events. */
export type ProjectionName =
  | "preflight"
  | "reading"
  | "fluid_log"
  | "flight_log"
  | "meter_totals"
  | "discrepancy"
  | "work_done"
  | "release_withdrawn"
  | "meter_change"
  | "component_move"
  | "person_entry"
  | "workshop_plan";

/** A stream of a batch: its events on record, those added, and its folded state. */
export interface BatchStream {
  stream: TouchedStream;
  folded: FoldedStream;
  kind: StreamKind;
}

/** What one transaction adds to the record. */
export interface Batch {
  groupId: string;
  streams: readonly BatchStream[];
  /** Discrepancies affected. */
  discrepancies: readonly string[];
}

/** Events of a batch in streams of one kind, in record order. */
export function addedIn({ streams }: Batch, kind: StreamKind): PreflightEvent[] {
  return streams.flatMap((one) => (one.kind === kind ? one.stream.added : []));
}

/** A row of a table, by the names of its schema. */
export type Row = Record<string, unknown>;

interface ProjectionBase {
  name: ProjectionName;
  write(tx: Tx, batch: Batch): Promise<void>;
}

/** A stream read whole, with its folded state. */
export interface ReadStream {
  id: string;
  kind: StreamKind;
  events: readonly PreflightEvent[];
  state: PreflightState;
}

/** A table whose rows follow from one stream each. */
export interface StreamProjection extends ProjectionBase {
  per: "stream";
  /** Rows of a stream; none if its kind has none. */
  rows(groupId: string, stream: ReadStream): Row[];
  /** Stored rows of these streams. */
  stored(db: Db, streamIds: readonly string[]): Promise<{ streamId: string; row: Row }[]>;
}

/** A table whose rows follow from all events of some kinds of streams of a group. */
export interface GroupProjection extends ProjectionBase {
  per: "group";
  kinds: readonly StreamKind[];
  /** Raised when rows are built differently; they are rebuilt at the next start. */
  version: number;
  rows(groupId: string, events: readonly PreflightEvent[]): Row[];
  stored(db: Db | Tx, groupId: string): Promise<Row[]>;
  /** Writes rows as they are. */
  insert(tx: Tx, rows: readonly Row[]): Promise<void>;
  /** Deletes the group's rows. */
  clear(tx: Tx, groupId: string): Promise<void>;
}

/** A table that depends on more than the events of a group or stream. */
export interface DerivedProjection extends ProjectionBase {
  per: "record";
  /** Rows that differ from a fresh calculation. */
  differences(db: Db, groupId: string): Promise<Difference[]>;
}

export type Projection = StreamProjection | GroupProjection | DerivedProjection;

/** A row that differs from the events. */
export interface Difference {
  table: string;
  id: string;
  /** Row by a fresh fold; null: there should be none. */
  folded: unknown;
  /** Stored row; null: missing. */
  written: unknown;
}
