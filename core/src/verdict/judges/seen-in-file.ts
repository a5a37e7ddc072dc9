import type { Judgement } from "../../judgement/judgement";

/**
 * A run-up read from a file, in which nobody said when a key was turned, stops nothing by itself: traces of other engines are read wrongly too often.
 * It says what it saw, and asks for the numbers or another try.
 */
export function asSeenInFile(judgement: Judgement): Judgement {
  if (judgement.grade !== "stop") return judgement;
  return {
    ...judgement,
    grade: "ask",
    action: "Seen only in a file. Enter the numbers you saw, or repeat the run-up.",
  };
}
