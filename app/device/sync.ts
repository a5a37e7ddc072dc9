import { MAX_BATCH } from "@cravix/contract";
import { api, ProblemError } from "./api";
import { eventsToSend, listsToSend, noteListSent, noteOutcome } from "./event-log";

export interface SyncOutcome {
  sent: number;
  refused: number;
}

/**
 * Sends everything that still has to be sent: lists first, then events in batches. Throws when the server cannot be reached;
 * whatever was not confirmed stays in the queue, and a repeat is harmless.
 */
export async function sendAll(): Promise<SyncOutcome> {
  const outcome = { sent: 0, refused: 0 };
  for (const { hash, list } of await listsToSend()) {
    await api.sendList(hash, list);
    await noteListSent(hash);
  }
  for (;;) {
    const batch = await eventsToSend(MAX_BATCH);
    if (batch.length === 0) return outcome;
    try {
      const { refused } = await api.sendEvents(batch);
      await noteOutcome(batch, refused);
      outcome.sent += batch.length - refused.length;
      outcome.refused += refused.length;
    } catch (error) {
      // The whole batch was turned down for what it is, not for the state of the server: keep it, with the reason.
      if (!(error instanceof ProblemError) || error.problem.status >= 500) throw error;
      await noteOutcome(
        batch,
        batch.map((event, index) => ({ id: event.id, index, reason: error.message })),
      );
      outcome.refused += batch.length;
    }
  }
}
