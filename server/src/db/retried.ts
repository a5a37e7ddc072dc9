import { setTimeout as sleep } from "node:timers/promises";
import type { Db, Tx } from "./database";
import { isBusy } from "./database-error";

const RETRIES = 8;

/** Runs a transaction again after a random delay, if another one was first: here, or on another database server. */
export function retried<T>(db: Db, work: (tx: Tx) => Promise<T>): Promise<T> {
  return whileBusy(() => db.transaction(work));
}

/** The same for a single statement. */
export async function whileBusy<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      if (!isBusy(error) || attempt >= RETRIES) throw error;
      await sleep(Math.random() * 15 * attempt);
    }
  }
}
