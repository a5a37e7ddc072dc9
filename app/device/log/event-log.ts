import type { Refusal } from "@cravix/contract/client";
import type { ComposedList, PreflightEvent } from "@cravix/core";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { answersInTime, deviceDatabase, type KeptEvent } from "./database";
import { trackWrite } from "./pending-writes";

/** Something was answered in another window of this device since: what is to be kept was decided without it. */
export class ConflictError extends Error {
  override readonly name = "ChangedElsewhere";
}

export interface Together {
  events: readonly PreflightEvent[];
  list?: { hash: string; list: ComposedList };
  /** Kept only where no event of this walk is on the disk that is not known here. */
  ifUnchanged?: { streamId: string; known: ReadonlySet<string> };
  /** A note that changes with it. */
  note?: { key: string; change: (before: unknown) => unknown };
}

/** What fails on the way leaves nothing of itself behind. */
async function orNothing(tx: { abort(): void }, work: Promise<void>): Promise<void> {
  try {
    await work;
  } catch (error) {
    try {
      tx.abort();
    } catch {
      // It has ended already.
    }
    throw error;
  }
}

/**
 * Keeps what belongs together, all of it or nothing; resolves only when it is really on the device's disk. Throws ChangedElsewhere, DeviceError
 * where the disk does not answer, or what the browser says of it.
 */
export async function keepTogether({ events, list, ifUnchanged, note }: Together): Promise<void> {
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
  // Whichever part of it fails is told by the work itself.
  tx.done.catch(() => undefined);
  await answersInTime(orNothing(tx, work()));
}

/** Resolves only when the events are really on the device's disk. */
export function keepEvents(events: readonly PreflightEvent[]): Promise<void> {
  const work = putEvents(events);
  trackWrite(work);
  return work;
}

async function putEvents(events: readonly PreflightEvent[]): Promise<void> {
  const taken = events.filter((event) => event.type === "discrepancy.photographed");
  // A picture waits for the server from the moment on in which what it shows is kept: both or neither.
  const stores: ("events" | "photographs")[] = taken.length > 0 ? ["events", "photographs"] : ["events"];
  const tx = (await deviceDatabase()).transaction(stores, "readwrite", { durability: "strict" });
  tx.done.catch(() => undefined);
  const work = async () => {
    const store = tx.objectStore("events");
    const puts = events.map((event) => {
      const put = store.put({ event, id: event.id, streamId: event.streamId, sync: "to send" });
      // Whichever part of it fails is told by the work itself.
      put.catch(() => undefined);
      return put;
    });
    for (const { id, data } of taken) {
      const pictures = tx.objectStore("photographs");
      const kept = await pictures.get(data.photograph);
      if (kept?.state === "draft") await pictures.put({ ...kept, state: "to send", eventId: id });
    }
    // Said to the end without waiting for what the disk answers: from here on the browser writes it down without this page, which may die in this very moment.
    tx.commit();
    await Promise.all([...puts, tx.done]);
  };
  await answersInTime(orNothing(tx, work()));
}

export async function eventsOfPreflight(streamId: string): Promise<PreflightEvent[]> {
  const kept = await (await deviceDatabase()).getAllFromIndex("events", "byStream", streamId);
  return kept.map(({ event }) => event);
}

/** Everything on this device, oldest first. */
export async function allEvents(): Promise<PreflightEvent[]> {
  return (await (await deviceDatabase()).getAll("events")).map(({ event }) => event);
}

/**
 * What the server may not have told yet, when it said last what it knows at `since` (by this device's clock): everything that was not sent by
 * then, each with the whole of its walk. It grows with what is new, not with the device's life.
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

/** Events and photographs that the server does not have yet. */
export async function countToSend(): Promise<number> {
  const db = await deviceDatabase();
  const [events, pictures] = await Promise.all([
    db.countFromIndex("events", "bySync", "to send"),
    db.countFromIndex("photographs", "byState", "to send"),
  ]);
  return events + pictures;
}

/** Writes down what the server said of a batch. A refused event stays on the device with its reason. */
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

/** Puts the refused ones back in the queue, for instance once the device's clock is right. */
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

/** A list as it is said today; what is kept is the text that its hash is of. */
export async function listOf(hash: string): Promise<ComposedList | undefined> {
  return upgradeFile((await (await deviceDatabase()).get("lists", hash))?.list) as ComposedList | undefined;
}

export async function listsToSend() {
  return (await deviceDatabase()).getAllFromIndex("lists", "bySent", 0);
}

/** Writes down what the server said of a list: it has it, or refuses it for this reason. */
export async function noteListOutcome(hash: string, reason?: string): Promise<void> {
  const db = await deviceDatabase();
  const kept = await db.get("lists", hash);
  if (!kept) return;
  const { list } = kept;
  await db.put("lists", reason === undefined ? { hash, list, sent: 1 } : { hash, list, sent: 2, reason });
}
