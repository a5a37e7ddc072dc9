import type { EventHandler } from "../event-handler";

export const verdictSigned: EventHandler<"verdict.signed"> = (
  walk,
  { id, at, crewId, data },
  { signatureId },
) => {
  const signature = { ...data, at, crewId };
  if (id !== signatureId) {
    walk.put({ amendments: [...walk.now.amendments, signature] });
    return;
  }
  // Nothing can be undone after the signature.
  walk.put({ signed: signature, undoable: [] });
};
