import type { ComposedList } from "../checklist/list/compose-list";
import type { EventData } from "../checklist/stream/events";
import type { PreflightState } from "../checklist/stream/preflight-state";
import type { Judgement } from "../judgement/judgement";
import { formatQuantity } from "../units/format";
import type { Reason } from "./verdict";

/** What is to be logged when a walk is signed: something new, or something known that was measured again. */
export type ToLog =
  | { type: "discrepancy.opened"; data: Omit<EventData["discrepancy.opened"], "discrepancyId"> }
  | { type: "discrepancy.observed"; data: EventData["discrepancy.observed"] };

/** What a discrepancy has room for. */
const MOST_WORDS = 1500;

/**
 * What the next pilot and the mechanic must know although nobody logged it: what was judged of the aircraft itself and is to be asked about or stops the
 * flight, such as a magneto without a drop. One trouble is one discrepancy, with all that was seen of it; one that is open already is measured again and
 * not opened anew. Nothing found is lost because the flight was cancelled; what is of the day (fuel, wind) goes with the day.
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
      // Who looked at it has said how it is.
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
          // What belongs to no item is met where the walk begins, rather than lost.
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
    .slice(0, MOST_WORDS);

/** The number that will be laid beside the next one. */
function measureOf(all: readonly Judgement[]): string | undefined {
  const reading = all.find((one) => one.reading && one.grade !== "unjudged")?.reading;
  return reading && formatQuantity(reading);
}
