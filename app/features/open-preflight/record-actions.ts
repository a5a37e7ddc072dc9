import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { Photograph } from "@cravix/core/airworthiness/life/photograph";
import type { EventData } from "@cravix/core/checklist/stream/events";
import type { FindingGrade } from "@cravix/core/judgement/judgement";
import { type EventInput, JUST_LOGGED, record, recordAll } from "../../store/preflight/record";
import type { ActsOn } from "./answer-actions";

/** What a preflight adds to the aircraft's logs: fuel, oil and discrepancies. */
export function recordActions({ dispatch, list, state: { id } }: ActsOn) {
  return {
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
  };
}
