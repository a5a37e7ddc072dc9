import type { Refusal } from "@cravix/contract";
import type { ComposedList, PreflightEvent } from "@cravix/core";
import { deviceDatabase, type KeptEvent } from "./database";

/** Resolves only when the events are really on the device's disk. */
export async function keepEvents(events: readonly PreflightEvent[]): Promise<void> {
  const db = await deviceDatabase();
  const tx = db.transaction("events", "readwrite", { durability: "strict" });
  for (const event of events) {
    const known = await tx.store.get(event.id);
    if (!known) await tx.store.put({ event, id: event.id, preflightId: event.preflightId, sync: "to send" });
  }
  await tx.done;
}

export async function eventsOfPreflight(preflightId: string): Promise<PreflightEvent[]> {
  const kept = await (await deviceDatabase()).getAllFromIndex("events", "byPreflight", preflightId);
  return kept.map(({ event }) => event);
}

/** Everything on this device, oldest first. */
export async function allEvents(): Promise<PreflightEvent[]> {
  return (await (await deviceDatabase()).getAll("events")).map(({ event }) => event);
}

export async function eventsToSend(limit: number): Promise<PreflightEvent[]> {
  const kept = await (await deviceDatabase()).getAllFromIndex("events", "bySync", "to send", limit);
  return kept.map(({ event }) => event);
}

export async function refusedEvents(): Promise<KeptEvent[]> {
  return (await deviceDatabase()).getAllFromIndex("events", "bySync", "refused");
}

export async function countToSend(): Promise<number> {
  return (await deviceDatabase()).countFromIndex("events", "bySync", "to send");
}

/** Writes down what the server said of a batch. A refused event stays on the device with its reason. */
export async function noteOutcome(
  batch: readonly PreflightEvent[],
  refused: readonly Refusal[],
): Promise<void> {
  const reasons = new Map(refused.map((r) => [batch[r.index]?.id ?? r.id, r.reason]));
  const tx = (await deviceDatabase()).transaction("events", "readwrite");
  for (const event of batch) {
    const reason = reasons.get(event.id);
    await tx.store.put({
      event,
      id: event.id,
      preflightId: event.preflightId,
      sync: reason ? "refused" : "sent",
      ...(reason && { reason }),
    });
  }
  await tx.done;
}

/** Puts the refused ones back in the queue, for instance once the device's clock is right. */
export async function sendRefusedAgain(): Promise<void> {
  const tx = (await deviceDatabase()).transaction("events", "readwrite");
  for (const { event, id, preflightId } of await tx.store.index("bySync").getAll("refused"))
    await tx.store.put({ event, id, preflightId, sync: "to send" });
  await tx.done;
}

export async function keepList(hash: string, list: ComposedList): Promise<void> {
  const db = await deviceDatabase();
  if (!(await db.get("lists", hash))) await db.put("lists", { hash, list, sent: 0 });
}

export async function listOf(hash: string): Promise<ComposedList | undefined> {
  return (await (await deviceDatabase()).get("lists", hash))?.list;
}

export async function listsToSend() {
  return (await deviceDatabase()).getAllFromIndex("lists", "bySent", 0);
}

export async function noteListSent(hash: string): Promise<void> {
  const db = await deviceDatabase();
  const kept = await db.get("lists", hash);
  if (kept) await db.put("lists", { ...kept, sent: 1 });
}
