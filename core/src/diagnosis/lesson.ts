import { FAULTS } from "./fault-library";

/** Answer for a run-up without a fault. */
export const NO_FAULT = "none";

/**
 * Choices for a practice question: the true fault, "none", and the most similar faults, at most `most` in all, in library order
 * so that position reveals nothing. `ranked` is a diagnosis, most likely first; `truth` a fault id or "none".
 * Valid range: any ranking, `most` of 2 or more.
 */
export function lessonChoices(ranked: readonly { fault?: string }[], truth: string, most = 4): string[] {
  const chosen = new Set([truth, NO_FAULT]);
  for (const { fault } of ranked) if (fault && chosen.size < most) chosen.add(fault);
  for (const { id } of FAULTS) if (chosen.size < Math.min(most, 3)) chosen.add(id);
  return [...FAULTS.map(({ id }) => id), NO_FAULT].filter((id) => chosen.has(id));
}
