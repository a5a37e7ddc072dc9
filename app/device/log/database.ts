import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { upgradeBundle, upgradeEvent, upgradePlanned } from "@cravix/core/legacy-vocabulary";
import { type DBSchema, type IDBPDatabase, type IDBPTransaction, openDB, type StoreNames } from "idb";

/** Sync state of an event: to send, on record, or rejected with a reason. */
export interface KeptEvent {
  event: PreflightEvent;
  id: string;
  streamId: string;
  sync: "to send" | "sent" | "refused";
  /** When the server accepted it, by this device's clock, ms. */
  sentAt?: number;
  reason?: string;
  /** Field that caused the rejection. */
  field?: string;
}

/** 0 to send, 1 on record, 2 rejected. */
export interface KeptList {
  hash: string;
  list: ComposedList;
  sent: 0 | 1 | 2;
  reason?: string;
}

/** A photo: a draft until its discrepancy is logged, then to send, sent or rejected. */
export interface KeptPicture {
  hash: string;
  bytes: ArrayBuffer;
  type: string;
  state: "draft" | "to send" | "sent" | "refused";
  /** Event that references it, once there is one. */
  eventId?: string;
  /** When it was added, by this device's clock, ms. */
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
  /** Small values by key: the crew member, the server's last responses, drafts. */
  notes: { key: string; value: unknown };
  photographs: { key: string; value: KeptPicture; indexes: { byState: KeptPicture["state"] } };
}

export type DeviceDatabase = IDBPDatabase<CravixDevice>;

const VERSION = 4;
/** Time after which storage counts as not responding. */
const ANSWERS_WITHIN_MS = 10_000;

/** A failure of the device's storage, worded for the user. */
export class DeviceError extends Error {
  override readonly name = "DeviceError";
}

type Upgrade = IDBPTransaction<CravixDevice, ArrayLike<StoreNames<CravixDevice>>, "versionchange">;

/** Upgrades data of earlier versions. Lists are unchanged: they are identified by the hash of their text and upgraded when read. */
async function upgradeStored(tx: Upgrade, before: number): Promise<void> {
  const events = tx.objectStore("events");
  // Index of an earlier version, absent from the schema.
  if (events.indexNames.contains("byPreflight" as never)) events.deleteIndex("byPreflight");
  for (let at = await events.openCursor(); at; at = await at.continue()) {
    const { preflightId, ...kept } = at.value as KeptEvent & { preflightId: string };
    const event = upgradeEvent(kept.event) as PreflightEvent;
    // Sent events keep the meaning they had.
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

/** Opens the device's database, the first destination of every answer. Rejects with DeviceError if it does not respond. */
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
      if (before > 0) await upgradeStored(tx, before);
    },
    // Close for a newer version opened in another window.
    blocking(_now, _wanted, event) {
      (event.target as IDBDatabase).close();
      opened = undefined;
    },
    terminated() {
      opened = undefined;
    },
  });
}

/** Rejects after a timeout; a later call may succeed. */
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
