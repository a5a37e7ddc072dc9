import type { Judgement } from "../../judgement/judgement";

/**
 * Softens a judgement from an unprompted file: it does not stop the flight by itself, because unfamiliar traces are misread too
 * often. It reports the finding and asks for the numbers or a repeat.
 */
export function asSeenInFile(judgement: Judgement): Judgement {
  if (judgement.grade !== "stop") return judgement;
  return {
    ...judgement,
    grade: "ask",
    action: "Seen only in a file. Enter the numbers you saw, or repeat the run-up.",
  };
}
