import type { Source } from "../../judgement/judgement";
import { addDays, type LocalDate } from "../calendar/local-date";
import type { FlightKind } from "../due/due-item";
import type {
  DataAnswer,
  DeferralNeeds,
  DeferralQuestion,
  DeferralRules,
  DeferralStep,
  Equipment,
  EquipmentList,
  MinimumEntry,
} from "./deferral-rules";

/** A person's answer; "unknown" if they do not know. */
export type DeferralReply = "yes" | "no" | "unknown";

/** Input: what does not work, on which aircraft, for which flight. */
export interface DeferralCase {
  rules: DeferralRules;
  /** Checklist item at which it was found, or the equipment itself. */
  itemId?: string;
  equipmentId?: string;
  list?: EquipmentList;
  /** The operator's approved list, if there is one. */
  minimum?: readonly MinimumEntry[];
  /** Number of units that do not work. */
  broken?: number;
  flight: readonly FlightKind[];
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
  /** Operating and maintenance procedures from the operator's list. */
  operations?: string;
  maintenance?: string;
  placard?: string;
  deactivate?: string;
  trail: DeferralAnswer[];
  /** Next question that only a person can answer. */
  open?: DeferralQuestion;
  equipment?: Equipment;
}

/**
 * Evaluates whether equipment may be deferred. Questions are answered in order, from data if possible, otherwise from the manual
 * answers; the first unanswered one stays open. An unknown answer means ask first: uncertainty never ends in "deferrable". Never
 * throws for a valid rule set. Complexity: O(questions · equipment).
 * Source: the rule set; the shipped examples follow 14 CFR 91.213(d) and a minimum equipment list (from memory).
 */
export function mayBeDeferred(about: DeferralCase): DeferralOutcome {
  const { rules, told = {} } = about;
  const equipment = equipmentOf(about);
  const trail: DeferralAnswer[] = [];
  const ends = (outcome: Omit<DeferralOutcome, "trail" | "equipment">): DeferralOutcome => ({
    ...outcome,
    trail,
    ...(equipment && { equipment }),
  });
  let question = rules.questions[0];
  while (question && trail.length <= rules.questions.length) {
    const known = question.by && fromData(question.by, about, equipment);
    const answer = known?.answer ?? told[question.id];
    if (answer === undefined) return ends({ open: question });
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

function concluded(
  step: Exclude<DeferralStep, { ask: string }>,
  { rules, found, minimum }: DeferralCase,
  equipment: Equipment | undefined,
): Omit<DeferralOutcome, "trail"> {
  const { result, why } = step;
  if (result !== "deferrable") return { result, why };
  const entry = equipment && minimum?.find((one) => one.equipment === equipment.id);
  const days =
    entry && (entry.days ?? rules.categories?.find((category) => category.id === entry.category)?.days);
  return {
    result,
    why,
    needs: step.needs,
    ...(days !== undefined && { until: addDays(found, days) }),
    ...(entry?.operations && { operations: entry.operations }),
    ...(entry?.maintenance && { maintenance: entry.maintenance }),
    ...(step.needs.placard && { placard: equipment?.placard ?? "INOPERATIVE" }),
    ...(step.needs.deactivated && equipment?.deactivate && { deactivate: equipment.deactivate }),
  };
}

function equipmentOf({ list, itemId, equipmentId }: DeferralCase): Equipment | undefined {
  if (equipmentId !== undefined) return list?.equipment.find(({ id }) => id === equipmentId);
  return itemId === undefined ? undefined : list?.equipment.find(({ items }) => items.includes(itemId));
}

interface Known {
  answer: "yes" | "no";
  because: string;
  source?: Source;
}

function fromData(by: DataAnswer, about: DeferralCase, equipment: Equipment | undefined): Known | undefined {
  const { list, itemId, rules, flight, minimum, broken = 1 } = about;
  const today = flight.filter((kind) => equipment?.requiredFor.includes(kind));
  const entry = equipment && minimum?.find((one) => one.equipment === equipment.id);
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
      if (!equipment) return undefined;
      return today.length > 0
        ? {
            answer: "yes",
            because: `The equipment list requires ${equipment.name} for ${today.join(" and ")} flights.`,
          }
        : { answer: "no", because: `The equipment list does not require it for ${spoken(flight)}.` };
    case "required by rule":
      return byRule(rules.required, about, equipment);
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
      if (!entry) return undefined;
      return entry.installed - broken >= entry.required
        ? {
            answer: "yes",
            because: `${entry.installed - broken} of ${entry.installed} working, ${entry.required} required.`,
          }
        : {
            answer: "no",
            because: `${entry.installed - broken} of ${entry.installed} working, ${entry.required} required.`,
          };
    case "allowed today by the minimum list": {
      if (!entry) return undefined;
      const against = flight.filter((kind) => entry.notFor?.includes(kind));
      return against.length > 0
        ? {
            answer: "no",
            because: `The minimum equipment list does not allow it for ${against.join(" and ")} flights.`,
          }
        : { answer: "yes", because: "The minimum equipment list allows it for today's flight." };
    }
  }
}

function byRule(
  required: DeferralRules["required"],
  { flight, list }: DeferralCase,
  equipment: Equipment | undefined,
): Known | undefined {
  if (!required || !equipment) return undefined;
  const applies = required.filter(
    (rule) => rule.what === equipment.what && rule.for.some((kind) => flight.includes(kind)),
  );
  // A rule may depend on a date that has not been entered.
  let undecided = false;
  for (const { certifiedAfter, source, for: kinds } of applies) {
    const today = flight.filter((kind) => kinds.includes(kind));
    if (certifiedAfter !== undefined && list?.certified === undefined) {
      undecided = true;
      continue;
    }
    if (certifiedAfter !== undefined && list?.certified !== undefined && list.certified <= certifiedAfter)
      continue;
    return {
      answer: "yes",
      because: `${equipment.name}: required for ${today.join(" and ")} flights.`,
      source,
    };
  }
  if (undecided) return undefined;
  return { answer: "no", because: `No rule on file requires it for ${spoken(flight)}.` };
}

const spoken = (flight: readonly FlightKind[]) =>
  flight.length > 0 ? `${flight.join(" and ")} flights` : "this flight";
