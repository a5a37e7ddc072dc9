import type { ComposedList, PreflightEvent } from "@cravix/core";
import { type DBSchema, type IDBPDatabase, openDB } from "idb";

/** Where an event stands: still to be sent, on record at the server, or refused by it with a reason. */
export interface KeptEvent {
  event: PreflightEvent;
  id: string;
  preflightId: string;
  sync: "to send" | "sent" | "refused";
  reason?: string;
}

interface CravixDevice extends DBSchema {
  events: {
    key: string;
    value: KeptEvent;
    indexes: { byPreflight: string; bySync: KeptEvent["sync"] };
  };
  lists: {
    key: string;
    value: { hash: string; list: ComposedList; sent: 0 | 1 };
    indexes: { bySent: number };
  };
  /** Small things by name: who holds the device, what the server said last, drafts. */
  notes: { key: string; value: unknown };
}

export type DeviceDatabase = IDBPDatabase<CravixDevice>;

let opened: Promise<DeviceDatabase> | undefined;

/** The device's own database. It is the first place that every answer goes to. */
export function deviceDatabase(): Promise<DeviceDatabase> {
  opened ??= openDB<CravixDevice>("cravix", 1, {
    upgrade(db) {
      const events = db.createObjectStore("events", { keyPath: "id" });
      events.createIndex("byPreflight", "preflightId");
      events.createIndex("bySync", "sync");
      const lists = db.createObjectStore("lists", { keyPath: "hash" });
      lists.createIndex("bySent", "sent");
      db.createObjectStore("notes");
    },
    terminated() {
      opened = undefined;
    },
  }).catch((error) => {
    opened = undefined;
    throw error;
  });
  return opened;
}
