import type { ComposedList } from "../checklist/list/compose-list";
import type { EventData } from "../checklist/stream/events";
import type { PreflightState } from "../checklist/stream/preflight-state";
import type { Judgement } from "../judgement/judgement";
import { formatQuantity } from "../units/format";
import type { Reason } from "./verdict";

/** What to log when a preflight is signed: a new discrepancy, or a new observation of a known one. */
export type ToLog =
  | { type: "discrepancy.opened"; data: Omit<EventData["discrepancy.opened"], "discrepancyId"> }
  | { type: "discrepancy.observed"; data: EventData["discrepancy.observed"] };

/** Maximum length of a discrepancy's text. */
const MAX_WORDS = 1500;

/**
 * Discrepancies for the next pilot and the mechanic that nobody logged: judgements of the aircraft that mean "ask" or "stop",
 * such as a magneto without a drop. One cause gives one discrepancy with all its evidence; a known one gets a new observation
 * instead. They are logged even if the flight is cancelled; matters of the day (fuel, wind) are not.
 */
export function toLog(list: ComposedList, state: PreflightState, reasons: readonly Reason[]): ToLog[] {
  const here = new Set(state.discrepancies.map((d) => d.discrepancyId));
  const observed = new Set(state.observations.map((o) => o.discrepancyId));
  return reasons.flatMap((reason): ToLog[] => {
    const { judgement, cause, grade, itemId } = reason;
    if (!judgement || !cause || (grade !== "ask" && grade !== "stop")) return [];
    const all = [judgement, ...(reason.evidence ?? [])];
    if (!all.some((one) => one.scope === "aircraft")) return [];
    if (reason.discrepancyId && here.has(reason.discrepancyId)) return [];
    const known = list.items.find((item) => item.cause === cause && item.discrepancyId);
    if (known?.discrepancyId) {
      // Already observed by the pilot in this preflight.
      if (observed.has(known.discrepancyId)) return [];
      const measure = measureOf(all);
      return [
        {
          type: "discrepancy.observed",
          data: {
            discrepancyId: known.discrepancyId,
            itemId: known.id,
            state: "same",
            ...(measure && { measure }),
          },
        },
      ];
    }
    const measure = measureOf(all);
    return [
      {
        type: "discrepancy.opened",
        data: {
          registration: list.registration,
          // Without an item it is assigned to the first station.
          stationId: reason.stationId ?? list.stations[0]?.id ?? "",
          ...(itemId && { itemId }),
          text: wordsOf(all),
          grade,
          cause,
          ...(measure && { measure }),
        },
      },
    ];
  });
}

const wordsOf = (all: readonly Judgement[]) =>
  all
    .map((one) => `${one.subject}: ${one.sentence}`)
    .join(" ")
    .slice(0, MAX_WORDS);

/** Measure for comparison with later observations. */
function measureOf(all: readonly Judgement[]): string | undefined {
  const reading = all.find((one) => one.reading && one.grade !== "unjudged")?.reading;
  return reading && formatQuantity(reading);
}
