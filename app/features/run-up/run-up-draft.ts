import type { Observation, OpenQuestion } from "@cravix/core/diagnosis";
import type { MagnetoSideOrder, Mark, Trace, TraceSource } from "@cravix/core/run-up";
import { dropNote, noteKeys, readNote, saveNote } from "../../device/log/notes";
import type { RunUpQuestion } from "../../device/workers/run-up.worker";

/** A run-up with the pilot's answers, before it is recorded. */
export interface RunUpDraft {
  /** When it was read, ISO 8601. */
  at: string;
  trace: Trace;
  source: TraceSource;
  /** Number of clearing attempts. */
  tries: number;
  marks?: Mark[];
  /** The pilot's answers, and the questions asked. */
  told: Observation[];
  asked: OpenQuestion["id"][];
  /** The pilot's answer about the sides. */
  sides?: MagnetoSideOrder;
  /** Observations before a remedy, for the check after it. */
  before?: NonNullable<RunUpQuestion["before"]>;
}

const DRAFT = "run-up draft:";
/** Drafts are deleted after a week. */
const KEPT_MS = 7 * 24 * 3_600_000;

const nameOf = (walkId: string, engine: string | undefined) => `${DRAFT}${walkId}:${engine ?? "engine"}`;

/** Saves a run-up on this device until it is recorded, so that closing the page loses nothing. */
export async function saveRunUpDraft(walkId: string, engine: string | undefined, draft: RunUpDraft) {
  await saveNote(nameOf(walkId, engine), draft);
  for (const key of await noteKeys(DRAFT)) {
    const kept = await readNote<RunUpDraft>(key);
    if (kept && Date.parse(draft.at) - Date.parse(kept.at) > KEPT_MS) await dropNote(key);
  }
}

/** Saved run-up of this preflight and engine that is not recorded yet. */
export async function savedRunUpDraft(
  walkId: string,
  engine: string | undefined,
): Promise<RunUpDraft | undefined> {
  const kept = await readNote<RunUpDraft & { onlySide?: "right" | "left" }>(nameOf(walkId, engine));
  if (!kept?.onlySide) return kept;
  // Format of an earlier version of this page.
  const { onlySide, ...draft } = kept;
  return { ...draft, sides: { first: onlySide } };
}

export function dropRunUp(walkId: string, engine: string | undefined): Promise<void> {
  return dropNote(nameOf(walkId, engine));
}
