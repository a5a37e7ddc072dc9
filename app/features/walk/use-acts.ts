import { newId } from "@cravix/contract";
import { blockedBy, type EngineFeel, type FindingGrade, type Item } from "@cravix/core";
import { useMemo } from "react";
import { useAppDispatch } from "../../store/hooks";
import { record } from "../../store/record";
import type { Walk } from "./use-preflight";

/** What a person can do in a walk; each becomes an event. */
export function useActs({ list, state, item }: Pick<Walk, "list" | "state" | "item">) {
  const dispatch = useAppDispatch();
  return useMemo(() => {
    const id = state.id;
    // The same words as the screen's: whichever way an answer comes in, nothing passes a gate or a rule.
    const free = (target: Item) => !blockedBy(list, state, target);
    const visit = (itemId: string) => void dispatch(record(id, "item.visited", { itemId }));
    return {
      visit,
      visitStation: (stationId: string) => {
        const items = list.items.filter((i) => i.station === stationId);
        const target = items.find((i) => !state.answers[i.id]) ?? items[0];
        if (target) visit(target.id);
      },
      sound: (target: Item, value?: string) => {
        if (!free(target)) return;
        dispatch(
          record(id, "item.answered", {
            itemId: target.id,
            outcome: "sound",
            ...(value !== undefined && { value }),
          }),
        );
      },
      reading: (target: Item, value: number, feel?: EngineFeel) => {
        if (!target.reading || !free(target)) return;
        const { key, unit } = target.reading;
        dispatch(record(id, "reading.taken", { itemId: target.id, key, value, unit, ...(feel && { feel }) }));
      },
      found: (target: Item, text: string, grade: FindingGrade, measure?: string) =>
        void dispatch(
          record(id, "discrepancy.opened", {
            discrepancyId: newId(Date.now()),
            registration: list.registration,
            stationId: target.station,
            itemId: target.id,
            text,
            grade,
            ...(measure && { measure }),
          }),
        ),
      observed: (target: Item, seen: "same" | "grown" | "gone", measure?: string) => {
        if (!target.discrepancyId) return;
        dispatch(
          record(id, "discrepancy.observed", {
            discrepancyId: target.discrepancyId,
            itemId: target.id,
            state: seen,
            ...(measure && { measure }),
          }),
        );
      },
      later: (target: Item) => void dispatch(record(id, "item.deferred", { itemId: target.id })),
      undo: () => {
        const last = state.undoable.at(-1);
        if (last) dispatch(record(id, "item.undone", { eventId: last }));
      },
      interrupt: () => void dispatch(record(id, "interrupted", item ? { itemId: item.id } : {})),
      /** Going on after an interruption, from where it was or from the start of the station. */
      resume: (fromStation: boolean) => {
        const before = item ? list.items.filter((i) => i.station === item.station) : [];
        if (fromStation && item) {
          for (const i of before) {
            const answer = state.answers[i.id];
            // What was found stays found: only looks are looked at again.
            if (answer && answer.outcome !== "found")
              dispatch(record(id, "item.undone", { eventId: answer.eventId }));
          }
        }
        dispatch(record(id, "resumed", item ? { itemId: item.id } : {}));
        const first = before.find((i) => state.answers[i.id]?.outcome !== "found");
        if (fromStation && first) visit(first.id);
      },
    };
  }, [dispatch, list, state, item]);
}

export type Acts = ReturnType<typeof useActs>;
