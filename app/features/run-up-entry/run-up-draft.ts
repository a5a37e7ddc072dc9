import type { Observation, OpenQuestion } from "@cravix/core/diagnosis";
import type { MagnetoSideOrder, Mark, Trace, TraceSource } from "@cravix/core/run-up";
import { dropNote, keepNote, noteKeys, readNote } from "../../device/log/notes";
import type { RunUpQuestion } from "../../device/workers/run-up.worker";

/** A run-up that was read, with all that the pilot has answered, before it is written down. */
export interface RunUpDraft {
  /** When it was read, ISO 8601. */
  at: string;
  trace: Trace;
  source: TraceSource;
  /** Cleared so often. */
  tries: number;
  marks?: Mark[];
  /** What the pilot answered, and which questions that were. */
  told: Observation[];
  asked: OpenQuestion["id"][];
  /** What the pilot said of the sides. */
  sides?: MagnetoSideOrder;
  /** What was seen before a remedy, where this is the check after it. */
  before?: NonNullable<RunUpQuestion["before"]>;
}

const DRAFT = "run-up draft:";
/** A draft of a walk that nobody came back to is let go after a week. */
const KEPT_MS = 7 * 24 * 3_600_000;

const nameOf = (walkId: string, engine: string | undefined) => `${DRAFT}${walkId}:${engine ?? "engine"}`;

/** Keeps what was read on this device, until it is written down: a telephone that closes the page loses neither the trace nor an answer. */
export async function keepRunUp(walkId: string, engine: string | undefined, draft: RunUpDraft) {
  await keepNote(nameOf(walkId, engine), draft);
  for (const key of await noteKeys(DRAFT)) {
    const kept = await readNote<RunUpDraft>(key);
    if (kept && Date.parse(draft.at) - Date.parse(kept.at) > KEPT_MS) await dropNote(key);
  }
}

/** The run-up of this walk and engine that was read and is not yet written down. */
export async function keptRunUp(walkId: string, engine: string | undefined): Promise<RunUpDraft | undefined> {
  const kept = await readNote<RunUpDraft & { onlySide?: "right" | "left" }>(nameOf(walkId, engine));
  if (!kept?.onlySide) return kept;
  // As it was kept by an earlier version of this page.
  const { onlySide, ...draft } = kept;
  return { ...draft, sides: { first: onlySide } };
}

export function dropRunUp(walkId: string, engine: string | undefined): Promise<void> {
  return dropNote(nameOf(walkId, engine));
}
