import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { Photograph } from "@cravix/core/airworthiness/life/photograph";
import type { Card } from "@cravix/core/cards/card-of";
import { resumePoint } from "@cravix/core/checklist/resume-point";
import type { EventData, InterruptionCause, ReturnWay } from "@cravix/core/checklist/stream/events";
import { takeBackAll, undoEvent } from "@cravix/core/checklist/stream/undo";
import type { Sample } from "@cravix/core/fuel/drain/fuel-sample";
import type { FindingGrade } from "@cravix/core/judgement/judgement";
import { blockedBy, stationBlockedBy } from "@cravix/core/ledger/blocked-by";
import { useMemo } from "react";
import { type EventInput, JUST_LOGGED, record, recordAll } from "../../store/preflight/record";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import type { HowRead } from "./how-read";
import type { LoadedPreflight } from "./use-preflight";

/** Actions of a preflight; each becomes an event. */
export function usePreflightActions({ list, state, item }: Pick<LoadedPreflight, "list" | "state" | "item">) {
  const dispatch = useAppDispatch();
  const me = useAppSelector((root) => root.session.crewId);
  return useMemo(() => {
    const id = state.id;
    // Same check as on the screen: no input path bypasses a gate or rule.
    const free = (target: Item) => !blockedBy(list, state, target);
    const visit = (itemId: string) => void dispatch(record(id, "item.visited", { itemId }));
    // With two people one reads and the other answers.
    const byCrewId = state.joined[0];
    return {
      visit,
      visitStation: (stationId: string) => {
        const items = list.items.filter((i) => i.station === stationId);
        const target = items.find((i) => !state.answers[i.id]) ?? items[0];
        if (target) visit(target.id);
      },
      checked: (target: Item, value?: string, caught?: boolean) => {
        if (!free(target)) return;
        dispatch(
          record(id, "item.answered", {
            itemId: target.id,
            outcome: "checked",
            ...(value !== undefined && { value }),
            ...(caught && { caught }),
            ...(byCrewId && { byCrewId }),
          }),
        );
      },
      reading: (target: Item, value: number, how: HowRead = {}) => {
        if (!target.reading || !free(target)) return;
        const { key, unit } = target.reading;
        dispatch(record(id, "reading.taken", { itemId: target.id, key, value, unit, ...how }));
      },
      /** One answer to all parts of a card, recorded as one event per part, all or none. Numbers and choices by item. */
      cardChecked: (card: Card, values: Readonly<Record<string, number | string>> = {}) => {
        // Last part first: the preflight continues after the first part, so items in between are not skipped.
        const all = [...card.parts]
          .reverse()
          .filter(free)
          .map((part): EventInput => {
            const value = values[part.id];
            if (part.reading && typeof value === "number")
              return {
                type: "reading.taken",
                data: {
                  itemId: part.id,
                  key: part.reading.key,
                  value,
                  unit: part.reading.unit,
                  card: card.id,
                },
              };
            if (part.kind === "sample")
              return {
                type: "sample.taken",
                data: {
                  itemId: part.id,
                  look: "clean",
                  fate: list.preferences?.sample ?? "discarded",
                  card: card.id,
                },
              };
            return {
              type: "item.answered",
              data: {
                itemId: part.id,
                outcome: "checked",
                card: card.id,
                ...(typeof value === "string" && { value }),
                ...(byCrewId && { byCrewId }),
              },
            };
          });
        if (all.length > 0) dispatch(recordAll(id, all));
      },
      cardLater: (card: Card) =>
        void dispatch(
          recordAll(
            id,
            card.parts.map((part): EventInput => ({ type: "item.postponed", data: { itemId: part.id } })),
          ),
        ),
      /** Records a sample, clean or not. */
      sample: (target: Item, sample: Sample) => {
        if (!free(target)) return;
        const fate = sample.look === "clean" ? (list.preferences?.sample ?? "discarded") : "discarded";
        dispatch(record(id, "sample.taken", { ...sample, itemId: target.id, fate }));
      },
      rocked: () => void dispatch(record(id, "wings.rocked", {})),
      blade: (target: Item, blade: number) => {
        if (free(target)) dispatch(record(id, "blade.pulled", { itemId: target.id, blade }));
      },
      uplifted: (uplift: Omit<EventData["fuel.uplifted"], "registration">) =>
        void dispatch(record(id, "fuel.uplifted", { ...uplift, registration: list.registration })),
      told: (told: EventData["fuel.told"]) => void dispatch(record(id, "fuel.told", told)),
      oilAdded: (oil: Omit<EventData["oil.added"], "registration">) =>
        void dispatch(record(id, "oil.added", { ...oil, registration: list.registration })),
      found: (
        target: Item,
        text: string,
        grade: FindingGrade,
        {
          measure,
          cause,
          photographs = [],
        }: { measure?: string; cause?: string; photographs?: readonly Photograph[] } = {},
      ) =>
        void dispatch(
          recordAll(id, [
            {
              type: "discrepancy.opened",
              data: {
                registration: list.registration,
                stationId: target.station,
                itemId: target.id,
                text,
                grade,
                ...(measure && { measure }),
                ...(cause && { cause }),
              },
            },
            ...photographs.map(
              (one): EventInput => ({
                type: "discrepancy.photographed",
                data: { ...one, discrepancyId: JUST_LOGGED },
              }),
            ),
          ]),
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
      later: (target: Item) => void dispatch(record(id, "item.postponed", { itemId: target.id })),
      /** Records a whole station done from memory; none of its items may be blocked unless postponed. */
      flowed: (stationId: string) => {
        if (stationBlockedBy(list, state, stationId)) return;
        dispatch(record(id, "station.flowed", { stationId }));
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
  }, [dispatch, list, state, item, me]);
}

export type Acts = ReturnType<typeof usePreflightActions>;
