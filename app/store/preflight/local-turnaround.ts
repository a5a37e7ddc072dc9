import type { AircraftBundle } from "@cravix/contract/client";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { type EarlierPreflight, turnaroundBlockReason } from "@cravix/core/checklist/turnaround";
import { localFluidRows } from "./local-fluid-memory";

/** Why the next flight cannot be a turnaround, from the server's data plus local events. */
export function localTurnaroundReason(
  bundle: AircraftBundle,
  events: readonly PreflightEvent[],
  crewId: string | null,
  now: number,
): string | undefined {
  const { registration } = bundle.aircraft;
  const begunHere = events.flatMap((e) =>
    e.type === "preflight.started" && e.data.registration === registration ? [e.streamId] : [],
  );
  const here = new Map(
    [...new Set(begunHere)].map((id) => {
      const { crewId: pilot, signed, lastAt } = foldPreflight(id, events);
      const preflight: EarlierPreflight = {
        crewId: pilot ?? null,
        decision: signed?.decision ?? null,
        signedAt: signed?.at ?? null,
        lastAt: lastAt ?? null,
      };
      return [id, preflight];
    }),
  );
  // After-flight checks may have been done here since.
  const later = (id: string, lastAt: string | null) =>
    events.reduce((last, e) => (e.streamId === id && e.at > (last ?? "") ? e.at : last), lastAt);
  const walks = bundle.recentPreflights
    .filter(({ id }) => !here.has(id))
    .map((preflight): EarlierPreflight => ({ ...preflight, lastAt: later(preflight.id, preflight.lastAt) }));
  // Sign-offs on other aircraft are not work on this one.
  const own = new Set([
    ...bundle.openDiscrepancies.map(({ id }) => id),
    ...events.flatMap((e) =>
      e.type === "discrepancy.opened" && e.data.registration === registration ? [e.data.discrepancyId] : [],
    ),
  ]);
  return turnaroundBlockReason([...walks, ...here.values()], crewId, now, {
    uplifts: localFluidRows(bundle, events)
      .filter(({ entry }) => entry === "uplift")
      .map(({ at }) => at),
    signOffs: events.flatMap((e) =>
      e.type === "discrepancy.closed" && own.has(e.data.discrepancyId) ? [e.at] : [],
    ),
  });
}
