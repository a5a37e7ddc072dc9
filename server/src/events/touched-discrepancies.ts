import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { isAboutDiscrepancy } from "@cravix/core/checklist/stream/fold-discrepancies";
import type { TouchedStream } from "../record/fold-streams";

/** Events that can change whether others of their stream count. */
const CHANGES: readonly PreflightEvent["type"][] = [
  "item.undone",
  "discrepancy.withdrawn",
  "preflight.started",
  "verdict.signed",
];

/** Discrepancies a stream affects: those of its new events, and all of the stream's if these undo something. */
export function touchedBy({ stored, added }: TouchedStream): string[] {
  const all = added.some((e) => CHANGES.includes(e.type)) ? [...stored.map((s) => s.event), ...added] : added;
  return all.filter(isAboutDiscrepancy).map((e) => e.data.discrepancyId);
}
