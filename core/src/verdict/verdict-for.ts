import type { Grade, Verdict } from "../judgement/judgement";

/** The verdict of what has this grade at its worst: what has no limit on file is asked about. */
export function verdictFor(grade: Grade): Verdict {
  if (grade === "stop") return "stop";
  if (grade === "ask" || grade === "unjudged") return "ask first";
  return grade === "within limits" ? "go" : "go with notes";
}
