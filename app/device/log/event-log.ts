import type { Refusal } from "@cravix/contract/client";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { answersInTime, deviceDatabase, type KeptEvent } from "./database";
import { trackWrite } from "./pending-writes";

/** Another window of this device recorded an event first, so the decision may be outdated. */
export class ConflictError extends Error {
  override readonly name = "ChangedElsewhere";
}

export interface Together {
  events: readonly PreflightEvent[];
  list?: { hash: string; list: ComposedList };
  /** Store only if the stored preflight has no events unknown to the caller. */
  ifUnchanged?: { streamId: string; known: ReadonlySet<string> };
  /** A note updated in the same transaction. */
  note?: { key: string; change: (before: unknown) => unknown };
}

/** Aborts the transaction on failure, so that nothing is stored partially. */
async function orNothing(tx: { abort(): void }, work: Promise<void>): Promise<void> {
  try {
    await work;
  } catch (error) {
    try {
      tx.abort();
    } catch {
      // Already finished.
    }
    throw error;
  }
}

/**
 * Stores related records in one transaction; resolves when they are on disk. Throws ConflictError, DeviceError if storage does
 * not respond, or the browser's error.
 */
export async function saveAtomically({ events, list, ifUnchanged, note }: Together): Promise<void> {
  const db = await deviceDatabase();
  const tx = db.transaction(["events", "lists", "notes"], "readwrite", { durability: "strict" });
  const work = async () => {
    const store = tx.objectStore("events");
    if (ifUnchanged) {
      const { streamId, known } = ifUnchanged;
      const there = await store.index("byStream").getAllKeys(streamId);
      if (there.some((id) => !known.has(id))) {
        tx.abort();
        throw new ConflictError("Answers changed in another window. Check them, then try again.");
      }
    }
    if (list && !(await tx.objectStore("lists").getKey(list.hash)))
      await tx.objectStore("lists").put({ ...list, sent: 0 });
    for (const event of events)
      if (!(await store.getKey(event.id)))
        await store.put({ event, id: event.id, streamId: event.streamId, sync: "to send" });
    if (note) {
      const notes = tx.objectStore("notes");
      await notes.put(note.change(await notes.get(note.key)), note.key);
    }
    await tx.done;
  };
  // Failures surface through the individual requests.
  tx.done.catch(() => undefined);
  await answersInTime(orNothing(tx, work()));
}

/** Resolves when the events are on disk. */
export function saveEvents(events: readonly PreflightEvent[]): Promise<void> {
  const work = putEvents(events);
  trackWrite(work);
  return work;
}

async function putEvents(events: readonly PreflightEvent[]): Promise<void> {
  const taken = events.filter((event) => event.type === "discrepancy.photographed");
  // A photo becomes ready to send in the transaction that stores its event.
  const stores: ("events" | "photographs")[] = taken.length > 0 ? ["events", "photographs"] : ["events"];
  const tx = (await deviceDatabase()).transaction(stores, "readwrite", { durability: "strict" });
  tx.done.catch(() => undefined);
  const work = async () => {
    const store = tx.objectStore("events");
    const puts = events.map((event) => {
      const put = store.put({ event, id: event.id, streamId: event.streamId, sync: "to send" });
      // Failures surface through the individual requests.
      put.catch(() => undefined);
      return put;
    });
    for (const { id, data } of taken) {
      const pictures = tx.objectStore("photographs");
      const kept = await pictures.get(data.photograph);
      if (kept?.state === "draft") await pictures.put({ ...kept, state: "to send", eventId: id });
    }
    // Commit without waiting for the requests: from here on the browser completes the write even if the page dies.
    tx.commit();
    await Promise.all([...puts, tx.done]);
  };
  await answersInTime(orNothing(tx, work()));
}

export async function eventsOfPreflight(streamId: string): Promise<PreflightEvent[]> {
  const kept = await (await deviceDatabase()).getAllFromIndex("events", "byStream", streamId);
  return kept.map(({ event }) => event);
}

/** All events on this device, oldest first. */
export async function allEvents(): Promise<PreflightEvent[]> {
  return (await (await deviceDatabase()).getAll("events")).map(({ event }) => event);
}

/**
 * Events the server's response from `since` (this device's clock) may not include: everything not sent by then, with its whole
 * preflight. Grows with new events, not with the device's history.
 */
export async function eventsBeyond(since: number): Promise<PreflightEvent[]> {
  const { store } = (await deviceDatabase()).transaction("events");
  const fresh = [
    ...(await store.index("bySync").getAll("to send")),
    ...(await store.index("bySync").getAll("refused")),
    ...(await store.index("bySentAt").getAll(IDBKeyRange.lowerBound(since))),
  ];
  const walks = [...new Set(fresh.map(({ streamId }) => streamId))];
  const whole = await Promise.all(walks.map((id) => store.index("byStream").getAll(id)));
  return whole
    .flat()
    .map(({ event }) => event)
    .sort((a, b) => (a.id < b.id ? -1 : 1));
}

export async function eventsToSend(limit: number): Promise<PreflightEvent[]> {
  const kept = await (await deviceDatabase()).getAllFromIndex("events", "bySync", "to send", limit);
  return kept.map(({ event }) => event);
}

export async function refusedEvents(): Promise<KeptEvent[]> {
  return (await deviceDatabase()).getAllFromIndex("events", "bySync", "refused");
}

export async function countEventsToSend(): Promise<number> {
  return (await deviceDatabase()).countFromIndex("events", "bySync", "to send");
}

/** Number of events and photos to send. */
export async function countToSend(): Promise<number> {
  const db = await deviceDatabase();
  const [events, pictures] = await Promise.all([
    db.countFromIndex("events", "bySync", "to send"),
    db.countFromIndex("photographs", "byState", "to send"),
  ]);
  return events + pictures;
}

/** Stores the server's response to a batch. A rejected event stays on the device with its reason. */
export async function noteOutcome(
  batch: readonly PreflightEvent[],
  refused: readonly Refusal[],
): Promise<void> {
  const reasons = new Map(refused.map((r) => [batch[r.index]?.id ?? r.id, r]));
  const tx = (await deviceDatabase()).transaction("events", "readwrite");
  for (const event of batch) {
    const no = reasons.get(event.id);
    await tx.store.put({
      event,
      id: event.id,
      streamId: event.streamId,
      ...(no
        ? { sync: "refused", reason: no.reason, ...(no.field && { field: no.field }) }
        : { sync: "sent", sentAt: Date.now() }),
    });
  }
  await tx.done;
}

/** Queues rejected events again, for instance after correcting the clock. */
export async function sendRefusedAgain(): Promise<void> {
  const tx = (await deviceDatabase()).transaction(["events", "lists"], "readwrite");
  const events = tx.objectStore("events");
  for (const { event, id, streamId } of await events.index("bySync").getAll("refused"))
    await events.put({ event, id, streamId, sync: "to send" });
  const lists = tx.objectStore("lists");
  for (const { hash, list } of await lists.index("bySent").getAll(2))
    await lists.put({ hash, list, sent: 0 });
  await tx.done;
}

/** Upgraded list; the stored text is the one its hash belongs to. */
export async function listOf(hash: string): Promise<ComposedList | undefined> {
  return upgradeFile((await (await deviceDatabase()).get("lists", hash))?.list) as ComposedList | undefined;
}

export async function listsToSend() {
  return (await deviceDatabase()).getAllFromIndex("lists", "bySent", 0);
}

/** Stores the server's response to a list: accepted, or rejected with a reason. */
export async function noteListOutcome(hash: string, reason?: string): Promise<void> {
  const db = await deviceDatabase();
  const kept = await db.get("lists", hash);
  if (!kept) return;
  const { list } = kept;
  await db.put("lists", reason === undefined ? { hash, list, sent: 1 } : { hash, list, sent: 2, reason });
}
