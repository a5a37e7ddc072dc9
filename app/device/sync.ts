import { MAX_BATCH } from "@cravix/contract/client";
import type { PreflightEvent } from "@cravix/core";
import { api, ProblemError, ServerUnreachableError } from "./api";
import { eventsToSend, listsToSend, noteListOutcome, noteOutcome } from "./log/event-log";
import { notePicture, picturesToSend } from "./photographs/stored-photos";

/** Why the queue stands still: no network or server, nobody is signed in, this one may not write, or the server asks for a pause. */
export type Standstill = "not reached" | "sign in" | "not allowed" | "busy";

export interface SyncOutcome {
  sent: number;
  refused: number;
  stopped?: { why: Standstill; waitMs?: number };
}

/** What a no of the server says: about what was sent, or about the sender and the moment. */
function standstillOf(error: unknown): SyncOutcome["stopped"] {
  if (error instanceof ServerUnreachableError) return { why: "not reached" };
  if (!(error instanceof ProblemError)) throw error;
  const { status } = error.problem;
  if (status === 401) return { why: "sign in" };
  // By another name, or from another place, than this server takes writing from.
  if (status === 403 || status === 421) return { why: "not allowed" };
  if (status === 429 || status >= 500)
    return { why: "busy", ...(error.waitMs !== undefined && { waitMs: error.waitMs }) };
  return undefined;
}

/**
 * Sends everything that still has to be sent: lists, then events in batches. What the server refuses for what it is stays here with the reason and
 * holds up nothing else; where the queue stands still, it says why. Whatever was not confirmed stays in the queue, and a repeat is harmless.
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
      // Turned down as a whole, too large or not readable: in smaller parts, until the one is found that cannot be taken.
      if (batch.length > 1) most = Math.ceil(batch.length / 2);
      else {
        await noteOutcome(batch, [refusalOf(batch[0] as PreflightEvent, error as Error)]);
        outcome.refused++;
        most = MAX_BATCH;
      }
    }
  }
}

/** Pictures go last: what they are of has to be on record before them. One that is refused stays here and holds up no other. */
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
