import { MAX_BATCH } from "@cravix/contract/client";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { api, ProblemError, ServerUnreachableError } from "../api";
import { eventsToSend, listsToSend, noteListOutcome, noteOutcome } from "../log/event-log";
import { notePicture, picturesToSend } from "../photographs/stored-photos";

/** Why sending stopped: server not reachable, not signed in, not permitted, or asked to wait. */
export type Standstill = "not reached" | "sign in" | "not allowed" | "busy";

export interface SyncOutcome {
  sent: number;
  refused: number;
  stopped?: { why: Standstill; waitMs?: number };
}

/** Interprets a server error: undefined if it concerns the data, otherwise why sending stopped. */
function standstillOf(error: unknown): SyncOutcome["stopped"] {
  if (error instanceof ServerUnreachableError) return { why: "not reached" };
  if (!(error instanceof ProblemError)) throw error;
  const { status } = error.problem;
  if (status === 401) return { why: "sign in" };
  // Wrong host name or origin for writing to this server.
  if (status === 403 || status === 421) return { why: "not allowed" };
  if (status === 429 || status >= 500)
    return { why: "busy", ...(error.waitMs !== undefined && { waitMs: error.waitMs }) };
  return undefined;
}

/**
 * Sends everything pending: lists, then events in batches. Data the server rejects stays here with the reason and does not hold
 * up the rest; if sending stops, the result says why. Unconfirmed data stays queued, and repeats are harmless.
 */
export async function sendAll(): Promise<SyncOutcome> {
  const outcome: SyncOutcome = { sent: 0, refused: 0 };
  for (const { hash, list } of await listsToSend()) {
    try {
      await api.sendList(hash, list);
      await noteListOutcome(hash);
    } catch (error) {
      const stopped = standstillOf(error);
      if (stopped) return { ...outcome, stopped };
      await noteListOutcome(hash, (error as Error).message);
    }
  }
  for (let most = MAX_BATCH; ; ) {
    const batch = await eventsToSend(most);
    if (batch.length === 0) return sendPictures(outcome);
    try {
      const { refused } = await api.sendEvents(batch);
      await noteOutcome(batch, refused);
      outcome.sent += batch.length - refused.length;
      outcome.refused += refused.length;
      most = MAX_BATCH;
    } catch (error) {
      const stopped = standstillOf(error);
      if (stopped) return { ...outcome, stopped };
      // The whole batch was rejected as too large or unreadable: halve it until the faulty event is found.
      if (batch.length > 1) most = Math.ceil(batch.length / 2);
      else {
        await noteOutcome(batch, [refusalOf(batch[0] as PreflightEvent, error as Error)]);
        outcome.refused++;
        most = MAX_BATCH;
      }
    }
  }
}

/** Photos go last, after the events that reference them. A rejected one does not hold up the others. */
async function sendPictures(outcome: SyncOutcome): Promise<SyncOutcome> {
  for (const { hash, bytes, type, logged } of await picturesToSend()) {
    if (logged === "to send") continue;
    if (logged === "refused") {
      await notePicture(hash, "The discrepancy for this photo was rejected by the server.");
      continue;
    }
    try {
      await api.sendPhotograph(hash, bytes, type);
      await notePicture(hash);
      outcome.sent++;
    } catch (error) {
      const stopped = standstillOf(error);
      if (stopped) return { ...outcome, stopped };
      await notePicture(hash, (error as Error).message);
      outcome.refused++;
    }
  }
  return outcome;
}

const refusalOf = (event: PreflightEvent, error: Error) => ({
  id: event.id,
  index: 0,
  reason: error.message,
});
