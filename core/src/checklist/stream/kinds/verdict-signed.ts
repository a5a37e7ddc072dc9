import type { EventHandler } from "../event-handler";

export const verdictSigned: EventHandler<"verdict.signed"> = (
  preflight,
  { id, at, crewId, data },
  { signatureId },
) => {
  const signature = { ...data, at, crewId };
  if (id !== signatureId) {
    preflight.put({ amendments: [...preflight.now.amendments, signature] });
    return;
  }
  // Nothing can be undone after the signature.
  preflight.put({ signed: signature, undoable: [] });
};
