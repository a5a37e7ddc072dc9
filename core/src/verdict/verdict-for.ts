import type { Grade, Verdict } from "../judgement/judgement";

/** Verdict for a worst grade; "unjudged" means ask first. */
export function verdictFor(grade: Grade): Verdict {
  if (grade === "stop") return "stop";
  if (grade === "ask" || grade === "unjudged") return "ask first";
  return grade === "within limits" ? "go" : "go with notes";
}
