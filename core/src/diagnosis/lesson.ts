import { FAULTS } from "./fault-library";

/** The answer of a run-up that nothing is wrong with. */
export const NO_FAULT = "none";

/**
 * What a learner may take a run-up for: the truth, that nothing is wrong, and the troubles that look most like it, at most `most` in all. They stand in
 * the order of the fault library, so that no place gives the truth away. `ranked` is a diagnosis, likeliest first; `truth` a fault's id or "none".
 * Valid range: any ranking, `most` of 2 or more.
 */
export function lessonChoices(ranked: readonly { fault?: string }[], truth: string, most = 4): string[] {
  const chosen = new Set([truth, NO_FAULT]);
  for (const { fault } of ranked) if (fault && chosen.size < most) chosen.add(fault);
  for (const { id } of FAULTS) if (chosen.size < Math.min(most, 3)) chosen.add(id);
  return [...FAULTS.map(({ id }) => id), NO_FAULT].filter((id) => chosen.has(id));
}
