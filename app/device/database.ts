import type { ComposedList, PreflightEvent } from "@cravix/core";
import { type DBSchema, type IDBPDatabase, openDB } from "idb";

/** Where an event stands: still to be sent, on record at the server, or refused by it with a reason. */
export interface KeptEvent {
  event: PreflightEvent;
  id: string;
  preflightId: string;
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

interface CravixDevice extends DBSchema {
  events: {
    key: string;
    value: KeptEvent;
    indexes: { byPreflight: string; bySync: KeptEvent["sync"]; bySentAt: number };
  };
  lists: { key: string; value: KeptList; indexes: { bySent: number } };
  /** Small things by name: who holds the device, what the server said last, drafts. */
  notes: { key: string; value: unknown };
}

export type DeviceDatabase = IDBPDatabase<CravixDevice>;

const VERSION = 2;
/** A browser that has not opened its storage by then has to be told of. */
const ANSWERS_WITHIN_MS = 10_000;

/** The device's own storage does not do what it must; in words for the person who holds it. */
export class DeviceError extends Error {
  override readonly name = "DeviceError";
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
        const events = db.createObjectStore("events", { keyPath: "id" });
        events.createIndex("byPreflight", "preflightId");
        events.createIndex("bySync", "sync");
        const lists = db.createObjectStore("lists", { keyPath: "hash" });
        lists.createIndex("bySent", "sent");
        db.createObjectStore("notes");
      }
      const events = tx.objectStore("events");
      events.createIndex("bySentAt", "sentAt");
      // What the server has already goes on meaning what it meant when it was sent.
      for (let at = await events.openCursor(); at; at = await at.continue())
        if (at.value.sync === "sent")
          await at.update({ ...at.value, event: { ...at.value.event, rules: 1 }, sentAt: 0 });
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
            "This browser's storage does not answer. Close other windows of Cravix, then reload.",
          ),
        ),
      ms,
    );
  });
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
}
