import type { ComposedList, PreflightEvent } from "@cravix/core";
import { upgradeBundle, upgradeEvent, upgradePlanned } from "@cravix/core/legacy-vocabulary";
import { type DBSchema, type IDBPDatabase, type IDBPTransaction, openDB, type StoreNames } from "idb";

/** Where an event stands: still to be sent, on record at the server, or refused by it with a reason. */
export interface KeptEvent {
  event: PreflightEvent;
  id: string;
  streamId: string;
  sync: "to send" | "sent" | "refused";
  /** When the server took it, by this device's clock, ms. */
  sentAt?: number;
  reason?: string;
  /** The field that it was refused for. */
  field?: string;
}

/** 0 to be sent, 1 on record at the server, 2 refused by it. */
export interface KeptList {
  hash: string;
  list: ComposedList;
  sent: 0 | 1 | 2;
  reason?: string;
}

/** A photograph: a draft until it is logged, then waiting for the server, which has it or has refused it. */
export interface KeptPicture {
  hash: string;
  bytes: ArrayBuffer;
  type: string;
  state: "draft" | "to send" | "sent" | "refused";
  /** The event that says of what it is, once there is one. */
  eventId?: string;
  /** When it came here, by this device's clock, ms. */
  at: number;
  reason?: string;
}

interface CravixDevice extends DBSchema {
  events: {
    key: string;
    value: KeptEvent;
    indexes: { byStream: string; bySync: KeptEvent["sync"]; bySentAt: number };
  };
  lists: { key: string; value: KeptList; indexes: { bySent: number } };
  /** Small things by name: who holds the device, what the server said last, drafts. */
  notes: { key: string; value: unknown };
  photographs: { key: string; value: KeptPicture; indexes: { byState: KeptPicture["state"] } };
}

export type DeviceDatabase = IDBPDatabase<CravixDevice>;

const VERSION = 4;
/** A browser that has not opened its storage by then has to be told of. */
const ANSWERS_WITHIN_MS = 10_000;

/** The device's own storage does not do what it must; in words for the person who holds it. */
export class DeviceError extends Error {
  override readonly name = "DeviceError";
}

type Upgrade = IDBPTransaction<CravixDevice, ArrayLike<StoreNames<CravixDevice>>, "versionchange">;

/**
 * What an earlier version left here, as it is said today. Lists stay as they are: they are known by the hash of their text, and are read anew
 * each time.
 */
async function inTodaysWords(tx: Upgrade, before: number): Promise<void> {
  const events = tx.objectStore("events");
  // The index of an earlier version, which today's schema does not name any more.
  if (events.indexNames.contains("byPreflight" as never)) events.deleteIndex("byPreflight");
  for (let at = await events.openCursor(); at; at = await at.continue()) {
    const { preflightId, ...kept } = at.value as KeptEvent & { preflightId: string };
    const event = upgradeEvent(kept.event) as PreflightEvent;
    // What the server has already goes on meaning what it meant when it was sent.
    const sent = before < 2 && kept.sync === "sent";
    await at.update({
      ...kept,
      streamId: preflightId,
      event: sent ? { ...event, rules: 1 } : event,
      ...(sent && { sentAt: 0 }),
    });
  }
  const notes = tx.objectStore("notes");
  for (let at = await notes.openCursor(); at; at = await at.continue()) {
    if (at.key === "planned") await at.update(upgradePlanned(at.value));
    else if (at.key.startsWith("bundle:")) await at.update(upgradeBundle(at.value));
  }
}

let opened: Promise<DeviceDatabase> | undefined;

/** The device's own database. It is the first place that every answer goes to. Rejects with DeviceError where it does not answer. */
export function deviceDatabase(): Promise<DeviceDatabase> {
  opened ??= answersInTime(open()).catch((error) => {
    opened = undefined;
    throw error;
  });
  return opened;
}

function open(): Promise<DeviceDatabase> {
  return openDB<CravixDevice>("cravix", VERSION, {
    async upgrade(db, before, _after, tx) {
      if (before < 1) {
        const fresh = db.createObjectStore("events", { keyPath: "id" });
        fresh.createIndex("bySync", "sync");
        const lists = db.createObjectStore("lists", { keyPath: "hash" });
        lists.createIndex("bySent", "sent");
        db.createObjectStore("notes");
      }
      if (before < 4)
        db.createObjectStore("photographs", { keyPath: "hash" }).createIndex("byState", "state");
      if (before >= 3) return;
      const events = tx.objectStore("events");
      if (before < 2) events.createIndex("bySentAt", "sentAt");
      events.createIndex("byStream", "streamId");
      if (before > 0) await inTodaysWords(tx, before);
    },
    // Another window opens a newer version: this one must not stand in its way.
    blocking(_now, _wanted, event) {
      (event.target as IDBDatabase).close();
      opened = undefined;
    },
    terminated() {
      opened = undefined;
    },
  });
}

/** What does not answer in time is told; whoever asks again later may find it awake. */
export function answersInTime<T>(work: Promise<T>, ms = ANSWERS_WITHIN_MS): Promise<T> {
  let timer: ReturnType<typeof setTimeout>;
  const late = new Promise<never>((_resolve, reject) => {
    timer = setTimeout(
      () =>
        reject(
          new DeviceError(
            "This browser's storage is not responding. Close other Cravix windows, then reload.",
          ),
        ),
      ms,
    );
  });
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
}
