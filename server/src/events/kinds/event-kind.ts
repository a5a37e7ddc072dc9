import { EVENT_DATA, EVENT_DEEDS, type Principal, type Subject } from "@cravix/contract";
import type { EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { Tx } from "../../db/database";
import type { ProjectionName } from "../../projections/projection";

/** Why an event is refused, and at which field. */
export interface Fault {
  field: string;
  reason: string;
}

/** What the admission of an event can see: the record, inside the transaction and under the locks of its subjects. */
export interface Admission {
  tx: Tx;
  groupId: string;
  now: Date;
  principal: Principal & { id: string };
}

type Of<T extends EventType> = Extract<PreflightEvent, { type: T }>;

/** One kind of event: everything the server knows about it. */
export interface EventKind<T extends EventType> {
  /** Fields of its data. */
  schema: (typeof EVENT_DATA)[T];
  /** What it does: who may do that is decided by `can`. */
  who: (typeof EVENT_DEEDS)[T];
  /** What its admission and its rows depend on besides its stream; locked before either. */
  subjects?(event: Of<T>, groupId: string): string[];
  /** Recorded value that decides what it does: the grade before, the kind of a person's due item. */
  before?(admission: Admission, event: Of<T>): Promise<string | undefined>;
  /** What `can` needs to know besides the role. */
  subject?(admission: Admission, event: Of<T>): Promise<Subject>;
  /** False for an event of this kind whose admission does not depend on the record; absent: it does if one of these is given. */
  decided?(event: Of<T>): boolean;
  /** Why it does not fit what is on record. */
  admit?(admission: Admission, event: Of<T>): Promise<Fault | undefined>;
  /** Aircraft whose due items must stay calculable; the event is refused if it adds one that cannot be calculated. */
  calculable?(event: Of<T>): string;
  /** Tables whose rows it changes. */
  rows: readonly ProjectionName[];
}

/** Completes the parts that the contract defines. */
export function eventKind<T extends EventType>(
  type: T,
  own: Omit<EventKind<T>, "schema" | "who">,
): EventKind<T> {
  return { schema: EVENT_DATA[type], who: EVENT_DEEDS[type], ...own };
}

/** True if its admission depends on the record: it is admitted in a transaction of its own, after everything before it in its batch. */
export function isDecidedOnRecord(kind: EventKind<EventType>, event: PreflightEvent): boolean {
  const asks = kind.before !== undefined || kind.subject !== undefined || kind.admit !== undefined;
  return asks && (kind.decided?.(event) ?? true);
}
