/** State of a release: being entered, signed, and then exported if wanted. */
export type ReleasePhase =
  | { name: "entering" }
  | { name: "signed"; id: string; date: string }
  | { name: "making the PDF"; id: string; date: string }
  | { name: "no PDF"; id: string; date: string };

export type ReleaseStep =
  | { type: "signed"; id: string; date: string }
  | { type: "export" }
  | { type: "exported" }
  | { type: "export failed" };

/** Next phase; a step that does not belong to the phase changes nothing. */
export function releasePhase(phase: ReleasePhase, step: ReleaseStep): ReleasePhase {
  if (step.type === "signed")
    return phase.name === "entering" ? { name: "signed", id: step.id, date: step.date } : phase;
  if (phase.name === "entering") return phase;
  const { id, date } = phase;
  if (step.type === "export") return { name: "making the PDF", id, date };
  if (phase.name !== "making the PDF") return phase;
  return { name: step.type === "exported" ? "signed" : "no PDF", id, date };
}
