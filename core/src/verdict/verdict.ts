import type { Item } from "../checklist/aircraft-type";
import type { ComposedList } from "../checklist/compose-list";
import type { PreflightState } from "../checklist/fold-preflight";
import { openItems } from "../checklist/next-item";
import { foldLedger, type LedgerEntry, openEntries } from "../ledger/fold-ledger";
import { judgePreflight } from "./judge-preflight";
import { GRADES, type Grade, type Judgement, type Verdict, worst } from "./judgement";

export interface Reason {
  grade: Grade;
  text: string;
  stationId?: string;
  itemId?: string;
  judgement?: Judgement;
}

export interface VerdictResult {
  /** Absent while something is still open and nothing found so far is a stop. */
  verdict?: Verdict;
  /** What speaks against going, worst first. */
  reasons: Reason[];
  /** What was judged and is in order. */
  sound: Judgement[];
  /** Items not answered yet: a gate. */
  unanswered: Item[];
  /** Things on, open or off that are not back as they must be: a gate. */
  outstanding: LedgerEntry[];
}

/**
 * The verdict with its reasons: stop if anything is a stop; ask first if anything has to be asked or has no limit on file; go with
 * notes if anything is to be noted or watched; else go. A stop stands at once; anything better only when every item is answered
 * and the ledger is closed. The pilot in command decides; this only says what speaks against it.
 */
export function computeVerdict(list: ComposedList, state: PreflightState): VerdictResult {
  const { judgements } = judgePreflight(list, state);
  const judged = judgements
    .filter((j) => j.grade !== "sound")
    .map((judgement) => judgementReason(list, judgement));
  const reasons: Reason[] = [
    ...judged,
    // One that was written up from a judgement is the same reason, not a second one.
    ...state.discrepancies
      .filter(({ text }) => !judged.some((reason) => reason.text === text))
      .map(
        ({ grade, text, stationId, itemId }): Reason => ({
          grade,
          text,
          stationId,
          ...(itemId && { itemId }),
        }),
      ),
    ...foundWithoutText(list, state),
    ...knownDiscrepancies(list, state),
  ].sort((a, b) => GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade));
  const unanswered = openItems(list, state);
  const outstanding = openEntries(foldLedger(list, state));
  const grade = worst(reasons.map((r) => r.grade));
  const finished = unanswered.length === 0 && outstanding.length === 0;
  return {
    ...((finished || grade === "stop") && { verdict: verdictFor(grade) }),
    reasons,
    sound: judgements.filter((j) => j.grade === "sound"),
    unanswered,
    outstanding,
  };
}

/**
 * Judgements that are of the day, not of the aircraft: fuel, the oil's level, wind and what was written down are put right by the pilot, not by a
 * mechanic. What an engine uses of oil is the aircraft's.
 */
const OF_THE_DAY = /^(fuel\.|oil\.level|oil\.added|wind\.|hours$|clock$|receivers\.age$)/;

/**
 * What the next pilot and the mechanic must know although nobody wrote it up: readings of the aircraft itself that are to be asked
 * about or stop the flight, such as a magneto without a drop. Nothing found is lost because the flight was cancelled.
 */
export function toWriteUp(
  reasons: readonly Reason[],
): (Reason & { grade: "ask" | "stop"; stationId: string })[] {
  return reasons.flatMap((reason) => {
    const { grade, stationId, judgement } = reason;
    if (!judgement || !stationId || (grade !== "ask" && grade !== "stop") || OF_THE_DAY.test(judgement.id))
      return [];
    return [{ ...reason, grade, stationId }];
  });
}

export function verdictFor(grade: Grade): Verdict {
  if (grade === "stop") return "stop";
  if (grade === "ask" || grade === "unjudged") return "ask first";
  return grade === "sound" ? "go" : "go with notes";
}

function judgementReason(list: ComposedList, judgement: Judgement): Reason {
  const item = list.items.find((i) => judgement.itemIds?.includes(i.id));
  return {
    grade: judgement.grade,
    text: `${judgement.subject}: ${judgement.sentence}`,
    judgement,
    ...(item && { stationId: item.station, itemId: item.id }),
  };
}

/** An item found wrong counts with its own grade even when its words are missing (they may still be on their way). */
function foundWithoutText(list: ComposedList, state: PreflightState): Reason[] {
  const written = new Set(state.discrepancies.map((d) => d.itemId));
  return list.items
    .filter((item) => state.answers[item.id]?.outcome === "found" && !written.has(item.id))
    .map((item) => ({
      grade: item.miss,
      text: `${item.title}: not as it should be.`,
      stationId: item.station,
      itemId: item.id,
    }));
}

function knownDiscrepancies(list: ComposedList, state: PreflightState): Reason[] {
  return list.items.flatMap((item): Reason[] => {
    const seen = state.observations.find((o) => o.discrepancyId === item.discrepancyId);
    if (item.kind !== "observe" || !seen) return [];
    const measure = seen.measure ? `, ${seen.measure}` : "";
    const at = { stationId: item.station, itemId: item.id };
    if (seen.state === "gone")
      return [
        { ...at, grade: "note", text: `${item.title}: gone${measure}. A mechanic still has to sign it off.` },
      ];
    const grade = seen.state === "grown" ? worst(["ask", item.miss]) : item.miss;
    return [
      { ...at, grade, text: `${item.title}: ${seen.state === "grown" ? "grown" : "the same"}${measure}.` },
    ];
  });
}
