import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { resumePoint } from "@cravix/core/checklist/resume-point";
import type { InterruptionCause, ReturnWay } from "@cravix/core/checklist/stream/events";
import { takeBackAll, undoEvent } from "@cravix/core/checklist/stream/undo";
import { record, recordAll } from "../../store/preflight/record";
import type { ActsOn } from "./answer-actions";

/** The course of a preflight: where it stands, who takes part, undo, and interruptions. */
export function courseActions({
  dispatch,
  list,
  state,
  item,
  me,
}: ActsOn & { item: Item | undefined; me: string | null }) {
  const id = state.id;
  const visit = (itemId: string) => void dispatch(record(id, "item.visited", { itemId }));
  return {
    visit,
    visitStation: (stationId: string) => {
      const items = list.items.filter((i) => i.station === stationId);
      const target = items.find((i) => !state.answers[i.id]) ?? items[0];
      if (target) visit(target.id);
    },
    join: (crewId: string) => void dispatch(record(id, "crew.joined", { crewId })),
    leave: (crewId: string) => void dispatch(record(id, "crew.left", { crewId })),
    /** True if this person can undo the last action. */
    canUndo: undoEvent(state, me) !== undefined,
    undo: () => {
      const back = takeBackAll(state, me);
      if (back.length > 0) dispatch(recordAll(id, back));
    },
    interrupt: (cause: InterruptionCause = "spoken to", since?: string) =>
      void dispatch(
        record(id, "interrupted", {
          ...(item && { itemId: item.id }),
          cause,
          ...(since && { since }),
        }),
      ),
    /** Take-off abandoned: the preflight is signed, so there is nothing to return to. */
    aborted: () =>
      void dispatch(
        recordAll(id, [
          { type: "interrupted", data: { cause: "take-off aborted" } },
          { type: "resumed", data: { way: "where I was" } },
        ]),
      ),
    /** Resumes after an interruption: checks after the chosen point are repeated. */
    resume: (way: ReturnWay) => {
      const back = item && resumePoint(list, state, item, way);
      for (const eventId of back?.undo ?? []) dispatch(record(id, "item.undone", { eventId }));
      dispatch(record(id, "resumed", { ...(item && { itemId: item.id }), way }));
      if (back && way !== "where I was") visit(back.itemId);
    },
  };
}
