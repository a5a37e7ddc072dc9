import type { Item } from "../aircraft/aircraft-type";
import { deferralStatusToday } from "../airworthiness/deferral-today";
import { overLimit } from "../airworthiness/life/measure-trend";
import type { ComposedList } from "../checklist/list/compose-list";
import { openItems } from "../checklist/next-item";
import type { OpenedDiscrepancy, PreflightState } from "../checklist/stream/preflight-state";
import { type FlightSubject, subjectOfCause } from "../judgement/flight-subjects";
import {
  causeOf,
  GRADES,
  type Grade,
  type Judgement,
  type Verdict,
  worstGrade,
} from "../judgement/judgement";
import { foldLedger, type LedgerEntry, openEntries } from "../ledger/fold-ledger";
import { judgePreflight } from "./judge-preflight";
import { requestedFlight } from "./judges/judge-airworthiness";
import { verdictFor } from "./verdict-for";
import { whyNotWaivable } from "./waivers";

export interface Reason {
  grade: Grade;
  text: string;
  stationId?: string;
  itemId?: string;
  /** The judgement that explains it best; others of the same cause are its evidence. */
  judgement?: Judgement;
  evidence?: Judgement[];
  /** Its cause, unique among reasons. */
  cause?: string;
  /** Discrepancy under which it is logged, in this preflight or earlier. */
  discrepancyId?: string;
  /** Set for a subject of the flight that was not assessed. */
  unknown?: FlightSubject;
  /** Why the pilot goes without the assessment, in his words. */
  waived?: string;
}

export interface VerdictResult {
  /** Absent while something is open and nothing is a stop. */
  verdict?: Verdict;
  /** Reasons against flying, worst first. */
  reasons: Reason[];
  /** Judgements within limits. */
  withinLimits: Judgement[];
  /** Unanswered items: a gate. */
  unanswered: Item[];
  /** Entries still to put back: a gate. */
  outstanding: LedgerEntry[];
  /** Subjects that were not assessed and about which nothing has been decided, in order of their reasons. */
  notAssessed: FlightSubject[];
  /** Why the pilot cannot decide alone to go without them. */
  whyNotWaivable?: string;
}

/**
 * Computes the verdict with its reasons: stop if anything is a stop; ask first if anything must be asked or has no limit on file;
 * go with notes if anything is a note or "watch"; else go. A stop appears at once; anything better only when every item is
 * answered and everything is put back. Judgements with one cause form one reason with evidence. The pilot in command decides.
 * Never throws for readings: an unusable number is "unjudged". Complexity: O(items + judgements).
 */
export function computeVerdict(list: ComposedList, state: PreflightState): VerdictResult {
  const { judgements } = judgePreflight(list, state);
  const places = new Map(list.items.map((item, place) => [item.id, place]));
  const forbidden = whyNotWaivable(list, state);
  const judged = byCause(judgements).map((group) =>
    withWaiver(judgedReason(list, places, group), state, forbidden),
  );
  const known = knownDiscrepancies(list, state);
  const reasons: Reason[] = [
    ...joined(judged, [...state.discrepancies.map(loggedReason), ...known]),
    ...foundWithoutText(list, state),
  ].sort((a, b) => GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade));
  const unanswered = openItems(list, state);
  const outstanding = openEntries(foldLedger(list, state));
  const grade = worstGrade(reasons.map((r) => r.grade));
  const finished = unanswered.length === 0 && outstanding.length === 0;
  return {
    ...((finished || grade === "stop") && { verdict: verdictFor(grade) }),
    reasons,
    withinLimits: judgements.filter((j) => j.grade === "within limits"),
    unanswered,
    outstanding,
    notAssessed: reasons.flatMap(({ unknown, waived }) => (unknown && waived === undefined ? [unknown] : [])),
    ...(forbidden !== undefined && { whyNotWaivable: forbidden }),
  };
}

/** A subject that was not assessed stays so until the pilot, where he may, decides knowingly to go without it. */
function withWaiver(reason: Reason, state: PreflightState, forbidden: string | undefined): Reason {
  const unknown = reason.grade === "unjudged" ? subjectOfCause(reason.cause) : undefined;
  if (!unknown) return reason;
  const why = state.waived?.[unknown]?.why;
  if (why === undefined || forbidden !== undefined) return { ...reason, unknown };
  const text = `${reason.text} Going without: “${why}”`;
  return { ...reason, unknown, waived: why, grade: "note", text };
}

/** Judgements outside limits by cause, in order of first appearance. */
function byCause(judgements: readonly Judgement[]): [Judgement, ...Judgement[]][] {
  const groups = new Map<string, [Judgement, ...Judgement[]]>();
  for (const judgement of judgements) {
    if (judgement.grade === "within limits") continue;
    const group = groups.get(causeOf(judgement));
    if (group) group.push(judgement);
    else groups.set(causeOf(judgement), [judgement]);
  }
  return [...groups.values()];
}

const rank = ({ grade, explains }: Judgement) => GRADES.indexOf(grade) + (explains ? GRADES.length : 0);

/** One reason per cause: told by the judgement that explains it, else the worst; graded by the worst. */
function judgedReason(
  list: ComposedList,
  places: ReadonlyMap<string, number>,
  group: readonly [Judgement, ...Judgement[]],
): Reason {
  const [first] = group;
  const judgement = group.reduce((a, b) => (rank(b) > rank(a) ? b : a), first);
  const evidence = group.filter((one) => one !== judgement);
  // Position of the first such item in the checklist, to go to.
  const at = group.flatMap((one) => one.itemIds ?? []).flatMap((id) => places.get(id) ?? []);
  const item = list.items[Math.min(...at)];
  return {
    grade: worstGrade(group.map((one) => one.grade)),
    text: `${judgement.subject}: ${judgement.sentence}`,
    judgement,
    cause: causeOf(judgement),
    ...(evidence.length > 0 && { evidence }),
    ...(item && { stationId: item.station, itemId: item.id }),
  };
}

/**
 * Joins logged discrepancies with judgements of the same cause; older ones without a cause by place and grade. The rest stay
 * separate.
 */
function joined(judged: readonly Reason[], logged: readonly Reason[]): Reason[] {
  const reasons = [...judged];
  const rest: Reason[] = [];
  for (const one of logged) {
    const at = reasons.findIndex((reason) => isSame(reason, one));
    const same = reasons[at];
    if (same)
      reasons[at] = {
        ...same,
        grade: worstGrade([same.grade, one.grade]),
        ...(one.discrepancyId && { discrepancyId: same.discrepancyId ?? one.discrepancyId }),
      };
    else rest.push(one);
  }
  return [...reasons, ...rest];
}

function isSame({ cause, judgement, grade }: Reason, one: Reason): boolean {
  if (one.cause !== undefined) return one.cause === cause;
  return one.itemId !== undefined && judgement?.itemIds?.includes(one.itemId) === true && one.grade === grade;
}

const loggedReason = ({
  discrepancyId,
  grade,
  text,
  stationId,
  itemId,
  cause,
}: OpenedDiscrepancy): Reason => ({
  grade,
  text,
  stationId,
  discrepancyId,
  ...(itemId && { itemId }),
  ...(cause && { cause }),
});

/** An item with a problem counts with its own grade even if its text has not arrived yet. */
function foundWithoutText(list: ComposedList, state: PreflightState): Reason[] {
  const written = new Set(state.discrepancies.map((d) => d.itemId));
  return list.items
    .filter((item) => state.answers[item.id]?.outcome === "found" && !written.has(item.id))
    .map((item) => ({
      grade: item.miss,
      text: `${item.title}: problem found.`,
      stationId: item.station,
      itemId: item.id,
    }));
}

/** Effect of a deferral on a known discrepancy for this flight; undefined if not deferred. */
function deferralForFlightToday(
  list: ComposedList,
  state: PreflightState,
  { discrepancyId, miss }: Item,
): { grade: Grade; words: string } | undefined {
  const deferral = discrepancyId === undefined ? undefined : list.deferrals?.[discrepancyId];
  const asked = requestedFlight(list, state) ?? {
    at: state.startedAt ?? "",
    minutes: state.plannedFlightMin ?? 0,
    conditions: state.conditions,
  };
  if (!deferral || asked.at === "") return undefined;
  const standing = deferralStatusToday(deferral, list.papers, asked, list.rules?.id);
  switch (standing.state) {
    case "holds":
      return { grade: "note", words: standing.words };
    case "asked anew":
      return { grade: worstGrade(["ask", miss]), words: standing.words };
    default:
      return { grade: "stop", words: standing.words };
  }
}

function knownDiscrepancies(list: ComposedList, state: PreflightState): Reason[] {
  const observed = list.items.filter((item) => item.kind === "observe");
  return observed.flatMap((item): Reason[] => {
    const seen = state.observations.find((o) => o.discrepancyId === item.discrepancyId);
    if (!seen) return [];
    const measure = seen.measure ? `, ${seen.measure}` : "";
    const at = {
      stationId: item.station,
      itemId: item.id,
      ...(item.discrepancyId && { discrepancyId: item.discrepancyId }),
      ...(item.cause && { cause: item.cause }),
    };
    if (seen.state === "gone")
      return [
        {
          ...at,
          grade: "note",
          text: `${item.title}: no longer there${measure}. A mechanic still has to sign it off.`,
        },
      ];
    const grown = seen.state === "grown";
    const words = `${item.title}: ${grown ? "worse" : "unchanged"}${measure}.`;
    const limit = item.discrepancyId === undefined ? undefined : list.measureLimits?.[item.discrepancyId];
    const over = limit && overLimit(seen.measure, limit);
    // At its limit, neither deferral nor monitoring applies.
    if (over) return [{ ...at, grade: "stop", text: `${words} ${over}` }];
    const deferred = deferralForFlightToday(list, state, item);
    if (!deferred) return [{ ...at, grade: grown ? worstGrade(["ask", item.miss]) : item.miss, text: words }];
    // A discrepancy that has grown is not covered by its deferral.
    const grade = grown ? worstGrade(["ask", deferred.grade]) : deferred.grade;
    return [{ ...at, grade, text: `${words} ${deferred.words}` }];
  });
}
