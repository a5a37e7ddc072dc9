import type { Source } from "../../judgement/judgement";
import { addDays, type LocalDate } from "../calendar/local-date";
import type { FlightKind } from "../due/due-item";
import { appliesTo } from "../due/judge-due";
import type {
  DataAnswer,
  DeferralNeeds,
  DeferralQuestion,
  DeferralRules,
  DeferralStep,
  Equipment,
  EquipmentList,
  MinimumEntry,
  RuleException,
} from "./deferral-rules";

/** A person's answer; "unknown" if they do not know. */
export type DeferralReply = "yes" | "no" | "unknown";

/** Input: what does not work, on which aircraft, for which flight. */
export interface DeferralCase {
  /** Absent if there is no rule set with deferral rules. */
  rules?: DeferralRules;
  /** Checklist item at which it was found. */
  itemId?: string;
  /** Equipment that a person chose. Counts only where the item leaves it open. */
  equipmentId?: string;
  list?: EquipmentList;
  /** The operator's approved list, if there is one. */
  minimum?: readonly MinimumEntry[];
  /** Number of units that do not work now; asked if several are fitted. */
  broken?: number;
  /** Number of units out already, deferred before. */
  out?: number;
  flight: readonly FlightKind[];
  /** Kinds of flight that nobody has told. */
  untold?: readonly FlightKind[];
  /** Day or year in which this aircraft was built. */
  built?: string;
  /** Day of discovery. */
  found: LocalDate;
  /** Manual answers by question. */
  told?: Readonly<Record<string, DeferralReply>>;
}

/** One answer and its source. */
export interface DeferralAnswer {
  question: string;
  ask: string;
  answer: DeferralReply;
  from: "data" | "told";
  /** Reason, if the data give one. */
  because?: string;
  source: Source;
}

export interface DeferralOutcome {
  /** Absent while a question is open. */
  result?: "not deferrable" | "deferrable" | "ask first";
  why?: string;
  needs?: DeferralNeeds;
  /** Last valid day, if the rules set one. */
  until?: LocalDate;
  /** The category leaves the end open: a person must enter the last day. */
  needsDate?: true;
  /** What a person must confirm before it is deferred. */
  confirm?: string[];
  /** Several are fitted: how many do not work? */
  count?: { installed: number; out: number };
  /** Operating and maintenance procedures from the operator's list. */
  operations?: string;
  maintenance?: string;
  placard?: string;
  deactivate?: string;
  trail: DeferralAnswer[];
  /** Next question that only a person can answer. */
  open?: DeferralQuestion;
  /** Kinds of flight that decide the open question and were not told: asked first. */
  depends?: FlightKind[];
  /** Exceptions of the rule that the open question is about. */
  exceptions?: readonly RuleException[];
  equipment?: Equipment;
}

/**
 * Evaluates whether equipment may be deferred. Questions are answered in order, from data if possible, otherwise from the manual
 * answers; the first unanswered one stays open. An unknown answer means ask first: uncertainty never ends in "deferrable". Never
 * throws for a valid rule set. Complexity: O(questions · equipment).
 * Source: the rule set; the shipped examples follow 14 CFR 91.213(d) and a minimum equipment list (from memory).
 */
export function mayBeDeferred(about: DeferralCase): DeferralOutcome {
  const { rules, told = {}, broken, out = 0 } = about;
  const equipment = equipmentOf(about);
  const trail: DeferralAnswer[] = [];
  const ends = (outcome: Omit<DeferralOutcome, "trail" | "equipment">): DeferralOutcome => ({
    ...outcome,
    trail,
    ...(equipment && { equipment }),
  });
  if (!rules)
    return ends({
      result: "ask first",
      why: "There are no deferral rules on file for this aircraft. Ask a mechanic, and look in your local rules, before you fly.",
    });
  const installed = fittedOf(about, equipment);
  if (installed > 1 && broken === undefined) return ends({ count: { installed, out } });
  let question = rules.questions[0];
  while (question && trail.length <= rules.questions.length) {
    const known = question.by && fromData(question.by, about, equipment);
    const answer = known?.answer ?? told[question.id];
    if (answer === undefined) {
      const depends = question.by ? untoldKinds(question.by, about, equipment) : [];
      const exceptions = question.by === "required by rule" ? exceptionsOf(about, equipment) : [];
      return ends({
        open: question,
        ...(depends.length > 0 && { depends }),
        ...(exceptions.length > 0 && { exceptions }),
      });
    }
    trail.push({
      question: question.id,
      ask: question.ask,
      answer,
      from: known ? "data" : "told",
      ...(known && { because: known.because }),
      source: known?.source ?? question.source,
    });
    if (answer === "unknown")
      return ends({ result: "ask first", why: "This could not be answered. Ask a mechanic before you fly." });
    const step: DeferralStep = question[answer];
    if (!("ask" in step)) return ends(concluded(step, about, equipment));
    const next: string = step.ask;
    question = rules.questions.find(({ id }) => id === next);
  }
  return ends({
    result: "ask first",
    why: "The rules on file do not cover this. Ask a mechanic before you fly.",
  });
}

const entryOf = ({ minimum }: DeferralCase, equipment: Equipment | undefined): MinimumEntry | undefined =>
  equipment && minimum?.find((one) => one.equipment === equipment.id);

const fittedOf = (about: DeferralCase, equipment: Equipment | undefined): number =>
  entryOf(about, equipment)?.installed ?? equipment?.installed ?? 1;

function concluded(
  step: Exclude<DeferralStep, { ask: string }>,
  about: DeferralCase,
  equipment: Equipment | undefined,
): Omit<DeferralOutcome, "trail"> {
  const { rules, found } = about;
  const { result, why } = step;
  if (result !== "deferrable") return { result, why };
  const entry = entryOf(about, equipment);
  const byList =
    entry && (entry.days ?? rules?.categories?.find((category) => category.id === entry.category)?.days);
  // Without knowing which exception holds, the shortest counts.
  const limits = [byList, ...exceptionsOf(about, equipment).map((one) => one.days)];
  const known = limits.filter((limit) => limit !== undefined);
  const days = known.length > 0 ? Math.min(...known) : undefined;
  const confirm = [
    ...(entry?.operations ? [`The operations procedure is known to the crew: ${entry.operations}`] : []),
    ...(entry?.maintenance ? [`The maintenance procedure is done and recorded: ${entry.maintenance}`] : []),
    "The placard is fitted, and the next pilot is told.",
  ];
  return {
    result,
    why,
    needs: {
      ...step.needs,
      ...(step.needs.deactivated &&
        equipment?.deactivateBy === "mechanic" && { signedBy: ["mechanic" as const] }),
    },
    confirm,
    ...(entry && byList === undefined && { needsDate: true as const }),
    ...(days !== undefined && { until: addDays(found, days) }),
    ...(entry?.operations && { operations: entry.operations }),
    ...(entry?.maintenance && { maintenance: entry.maintenance }),
    ...(step.needs.placard && { placard: equipment?.placard ?? "INOPERATIVE" }),
    ...(step.needs.deactivated && equipment?.deactivate && { deactivate: equipment.deactivate }),
  };
}

/**
 * Equipment that a finding at this item can be about: what the list names for the item; nothing if the item is part of the aircraft
 * itself; otherwise anything on the list. Complexity: O(equipment · items).
 */
export function equipmentAtItem(list: EquipmentList, itemId: string | undefined): readonly Equipment[] {
  if (itemId === undefined) return list.equipment;
  const named = list.equipment.filter(({ items }) => items.includes(itemId));
  if (named.length > 0) return named;
  return list.never.includes(itemId) ? [] : list.equipment;
}

/** The equipment in question: chosen by a person, or the only one that the list names for the item. */
function equipmentOf({ list, itemId, equipmentId }: DeferralCase): Equipment | undefined {
  if (!list) return undefined;
  const possible = equipmentAtItem(list, itemId);
  const chosen = possible.find(({ id }) => id === equipmentId);
  const [first, ...others] = possible;
  const named = itemId !== undefined && first?.items.includes(itemId) && others.length === 0;
  return chosen ?? (named ? first : undefined);
}

/** Kinds of flight that nobody has told and on which an answer from data depends. */
function untoldKinds(by: DataAnswer, about: DeferralCase, equipment: Equipment | undefined): FlightKind[] {
  const { rules, untold = [] } = about;
  const named: Partial<Record<DataAnswer, readonly FlightKind[]>> = {
    "required by its list": equipment?.requiredFor ?? [],
    "required by rule": (rules?.required ?? []).flatMap((rule) =>
      rule.what === equipment?.what ? rule.for : [],
    ),
    "allowed today by the minimum list": entryOf(about, equipment)?.notFor ?? [],
  };
  return untold.filter((kind) => named[by]?.includes(kind));
}

interface Known {
  answer: "yes" | "no";
  because: string;
  source?: Source;
}

function fromData(by: DataAnswer, about: DeferralCase, equipment: Equipment | undefined): Known | undefined {
  const { list, itemId, minimum, flight } = about;
  const entry = entryOf(about, equipment);
  switch (by) {
    case "is equipment":
      if (equipment) return { answer: "yes", because: `${equipment.name} is on the equipment list.` };
      if (itemId !== undefined && list?.never.includes(itemId))
        return {
          answer: "no",
          because: "It is part of the aircraft itself, not equipment that may be inoperative.",
        };
      return undefined;
    case "required by its list":
      return byList(about, equipment);
    case "required by rule":
      return byRule(about, equipment);
    case "required by directive":
      if (equipment?.directive)
        return { answer: "yes", because: `Directive ${equipment.directive} requires it.` };
      // A directive may exist even if none is on file.
      return undefined;
    case "on the minimum list":
      if (!minimum || !equipment) return undefined;
      return entry
        ? { answer: "yes", because: `${equipment.name}: category ${entry.category}.` }
        : { answer: "no", because: `${equipment.name} is not on the minimum equipment list.` };
    case "enough left by the minimum list":
      return entry && counted(about, entry.installed, entry.required);
    case "allowed today by the minimum list": {
      if (!entry) return undefined;
      const against = flight.filter((kind) => entry.notFor?.includes(kind));
      if (against.length > 0)
        return {
          answer: "no",
          because: `The minimum equipment list does not allow it for ${against.join(" and ")} flights.`,
        };
      // Nobody has said whether it is a flight for which the list does not allow it.
      return entry.notFor && appliesTo(entry.notFor, asFlight(about)) === "not told"
        ? undefined
        : { answer: "yes", because: "The minimum equipment list allows it for today's flight." };
    }
  }
}

const asFlight = ({ flight, untold = [] }: DeferralCase) => ({ kinds: flight, untold });

/** Whether enough work: those out already count as well. */
function counted({ broken = 1, out = 0 }: DeferralCase, installed: number, mustWork: number): Known {
  const working = Math.max(0, installed - broken - out);
  const before = out > 0 ? ` ${out} ${out === 1 ? "is" : "are"} out already.` : "";
  return {
    answer: working >= mustWork ? "yes" : "no",
    because: `${working} of ${installed} working, ${mustWork} required.${before}`,
  };
}

/** Whether the type's equipment list requires it: for this kind of flight, or in number. */
function byList(about: DeferralCase, equipment: Equipment | undefined): Known | undefined {
  if (!equipment) return undefined;
  const { flight, broken = 1, out = 0 } = about;
  const { name, installed = 1, mustWork, requiredFor } = equipment;
  if (mustWork !== undefined) {
    const { answer, because } = counted(about, installed, mustWork);
    if (answer === "no") return { answer: "yes", because: `${name}: ${because}` };
  }
  // With enough of several left, the list is met; otherwise every one counts.
  const enough = mustWork !== undefined && installed - broken - out >= mustWork;
  const applies = enough || requiredFor.length === 0 ? "no" : appliesTo(requiredFor, asFlight(about));
  if (applies === "not told") return undefined;
  const today = flight.filter((kind) => requiredFor.includes(kind));
  return applies === "yes"
    ? { answer: "yes", because: `The equipment list requires ${name} for ${today.join(" and ")} flights.` }
    : { answer: "no", because: `The equipment list does not require it for ${spoken(flight)}.` };
}

/**
 * Whether a rule requires it for this flight. Answered only where the rule set names the equipment: where it is silent, or nobody
 * has told what a rule depends on, a person is asked.
 */
function byRule(about: DeferralCase, equipment: Equipment | undefined): Known | undefined {
  const { rules, flight, list, built } = about;
  if (!rules?.required || !equipment) return undefined;
  const naming = rules.required.filter(({ what }) => what === equipment.what);
  if (naming.length === 0)
    return rules.notRequired?.includes(equipment.what)
      ? { answer: "no", because: "It was looked up: no rule requires it." }
      : undefined;
  let undecided = false;
  for (const rule of naming) {
    const applies = appliesTo(rule.for, asFlight(about), rule.all);
    if (applies === "no") continue;
    const later = [isAfter(list?.certified, rule.certifiedAfter), isAfter(built, rule.builtAfter)];
    if (later.includes("no")) continue;
    if (applies === "not told" || later.includes("not known")) {
      undecided = true;
      continue;
    }
    if (rule.except) {
      undecided = true;
      continue;
    }
    const today = flight.filter((kind) => rule.for.includes(kind));
    return {
      answer: "yes",
      because: `${equipment.name}: required for ${today.join(" and ")} flights.`,
      source: rule.source,
    };
  }
  if (undecided) return undefined;
  return { answer: "no", because: `The rules that name it do not require it for ${spoken(flight)}.` };
}

/** Exceptions of the rules that require it for this flight. */
function exceptionsOf(about: DeferralCase, equipment: Equipment | undefined): readonly RuleException[] {
  return (about.rules?.required ?? []).flatMap((rule) =>
    rule.what === equipment?.what && appliesTo(rule.for, asFlight(about), rule.all) === "yes"
      ? (rule.except ?? [])
      : [],
  );
}

/** Whether a day, or a year, is after the day of a rule. */
function isAfter(day: string | undefined, after: string | undefined): "yes" | "no" | "not known" {
  if (after === undefined) return "yes";
  if (day === undefined) return "not known";
  // A year alone leaves the year of the rule itself open.
  if (day.length === 4 && day === after.slice(0, 4)) return "not known";
  return day > after ? "yes" : "no";
}

const spoken = (flight: readonly FlightKind[]) =>
  flight.length > 0 ? `${flight.join(" and ")} flights` : "this flight";
