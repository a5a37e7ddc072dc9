import type { Source } from "../../judgement/judgement";
import type { FlightKind } from "../due/due-item";

/** Who must sign a deferral. */
export const DEFERRERS = ["pilot", "instructor", "mechanic"] as const;
export type Deferrer = (typeof DEFERRERS)[number];

/** Questions that data can answer without asking anyone. */
export const DATA_ANSWERS = [
  "is equipment",
  "required by its list",
  "required by rule",
  "required by directive",
  "on the minimum list",
  "enough left by the minimum list",
  "allowed today by the minimum list",
] as const;
export type DataAnswer = (typeof DATA_ANSWERS)[number];

/** Requirements of a deferral, so that the next pilot is not misled. */
export interface DeferralNeeds {
  placard: boolean;
  deactivated: boolean;
  signedBy: Deferrer[];
}

export type DeferralStep =
  | { ask: string }
  | { result: "not deferrable" | "ask first"; why: string }
  | { result: "deferrable"; why: string; needs: DeferralNeeds };

/** One question of a rule set: what answers it, and where yes and no lead. An unknown answer means ask first. */
export interface DeferralQuestion {
  id: string;
  ask: string;
  source: Source;
  by?: DataAnswer;
  yes: DeferralStep;
  no: DeferralStep;
}

/** A case in which a rule does not require the equipment. */
export interface RuleException {
  text: string;
  /** Days after discovery for which it holds. */
  days?: number;
}

/** Equipment a rule requires for certain kinds of flight. */
export interface RequiredByRule {
  /** Equipment name: "position lights". */
  what: string;
  for: FlightKind[];
  /** Only for a flight of all these kinds: a landing light for hire at night. */
  all?: true;
  /** Applies only to aircraft certificated after this day. */
  certifiedAfter?: string;
  /** Applies only to aircraft built after this day; with the year alone, after that year. */
  builtAfter?: string;
  source: Source;
  /** Exceptions of the rule. Where it has some, a person says whether one holds. */
  except?: RuleException[];
}

/** Repair interval of a minimum equipment list category, in days after the day of discovery. */
export interface RepairCategory {
  id: string;
  days?: number;
}

/** Deferral rules: questions as data, in order, starting with the first. */
export interface DeferralRules {
  questions: DeferralQuestion[];
  required?: RequiredByRule[];
  /** Equipment that was looked up and that no rule requires. About anything else the rule set is silent, and a person is asked. */
  notRequired?: string[];
  categories?: RepairCategory[];
}

/** One piece of equipment of an aircraft. */
export interface Equipment {
  id: string;
  name: string;
  /** Name as used in the rules; otherwise its own name. */
  what: string;
  /** Checklist items that inspect it. */
  items: string[];
  /** Kinds of flight for which the type's equipment list requires it. */
  requiredFor: FlightKind[];
  /** How many are fitted, and how many of them must work; without a count there is one. */
  installed?: number;
  mustWork?: number;
  /** Directive that requires it. */
  directive?: string;
  /** How to secure or deactivate it, and the placard text. */
  deactivate?: string;
  placard?: string;
  /** Set if deactivating it is maintenance: then only a mechanic does and signs it. */
  deactivateBy?: "mechanic";
}

/** Equipment of an aircraft. If an item's subject is not listed here, the pilot is asked. */
export interface EquipmentList {
  equipment: Equipment[];
  /** Items that never concern equipment: structure, controls, engine, tyres, fuel, brakes. */
  never: string[];
  /** Date of the type certification, if a rule depends on it. */
  certified?: string;
}

/** One entry of an operator's approved minimum equipment list. */
export interface MinimumEntry {
  equipment: string;
  category: string;
  /** Repair interval in days, for a category without one. */
  days?: number;
  installed: number;
  required: number;
  /** Kinds of flight for which it must work regardless. */
  notFor?: FlightKind[];
  operations?: string;
  maintenance?: string;
}

/** Role of the person who defers, as in the group's crew list. */
export type DeferringRole = "student" | "pilot" | "instructor" | "mechanic" | "owner" | "administrator";

const ACTS_AS: Record<DeferringRole, readonly Deferrer[]> = {
  student: [],
  pilot: ["pilot"],
  owner: ["pilot"],
  instructor: ["instructor", "pilot"],
  mechanic: ["mechanic"],
  administrator: [],
};

/** True if a person with this role may sign a deferral that needs one of these; never a student. */
export const maySignDeferral = (role: DeferringRole, signedBy: readonly Deferrer[]): boolean =>
  ACTS_AS[role].some((one) => signedBy.includes(one));

const leads = (step: DeferralStep): string[] => ("ask" in step ? [step.ask] : []);

/**
 * Faults in a set of questions: a missing target, duplicate ids, a circle, an unreachable question. Whether every path asks about
 * hazards is the rule author's responsibility. Paths as in the file.
 */
export function deferralFaults({ questions }: DeferralRules): { path: string; expected: string }[] {
  const faults: { path: string; expected: string }[] = [];
  const at = new Map<string, number>();
  questions.forEach(({ id }, i) => {
    if (at.has(id)) faults.push({ path: `questions[${i}].id`, expected: "a unique question id" });
    else at.set(id, i);
  });
  questions.forEach((question, i) => {
    for (const side of ["yes", "no"] as const)
      for (const next of leads(question[side]))
        if (!at.has(next))
          faults.push({
            path: `questions[${i}].${side}.ask`,
            expected: `an existing question; "${next}" does not exist`,
          });
  });
  const first = questions[0];
  if (!first || faults.length > 0) return faults;
  const done = new Set<string>();
  const open = new Set<string>();
  const circles = new Set<string>();
  const visit = (id: string): void => {
    if (open.has(id)) {
      circles.add(id);
      return;
    }
    if (done.has(id)) return;
    open.add(id);
    const question = questions[at.get(id) as number] as DeferralQuestion;
    for (const next of [...leads(question.yes), ...leads(question.no)]) visit(next);
    open.delete(id);
    done.add(id);
  };
  visit(first.id);
  for (const id of circles)
    faults.push({
      path: `questions[${at.get(id)}]`,
      expected: "questions that do not lead back to this one",
    });
  questions.forEach(({ id }, i) => {
    if (!done.has(id))
      faults.push({
        path: `questions[${i}]`,
        expected: "a question that can be reached from another question",
      });
  });
  return faults;
}
