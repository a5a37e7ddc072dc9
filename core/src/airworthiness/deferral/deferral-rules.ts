import type { Source } from "../../judgement/judgement";
import type { FlightKind } from "../due/due-item";

/** Who has to sign where something is deferred. */
export const DEFERRERS = ["pilot", "instructor", "mechanic"] as const;
export type Deferrer = (typeof DEFERRERS)[number];

/** What answers a question without anybody being asked, where there is data for it. */
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

/** What deferring needs, so that the next pilot is not taken in. */
export interface DeferralNeeds {
  placard: boolean;
  deactivated: boolean;
  signedBy: Deferrer[];
}

export type DeferralStep =
  | { ask: string }
  | { result: "not deferrable" | "ask first"; why: string }
  | { result: "deferrable"; why: string; needs: DeferralNeeds };

/** One question of a rule set: what answers it, and where yes and no lead. Who does not know asks first. */
export interface DeferralQuestion {
  id: string;
  ask: string;
  source: Source;
  by?: DataAnswer;
  yes: DeferralStep;
  no: DeferralStep;
}

/** What a rule wants aboard for which kinds of flight, by what it is. */
export interface RequiredByRule {
  /** What equipment it is: "position lights". */
  what: string;
  for: FlightKind[];
  /** Only where the aircraft was certificated after this day. */
  certifiedAfter?: string;
  source: Source;
}

/** How long each category of a minimum equipment list runs, days after the day of discovery. */
export interface RepairCategory {
  id: string;
  days?: number;
}

/** How something may be deferred under one set of rules: questions as data, in their order, the first one first. */
export interface DeferralRules {
  questions: DeferralQuestion[];
  required?: RequiredByRule[];
  categories?: RepairCategory[];
}

/** One piece of equipment of an aircraft. */
export interface Equipment {
  id: string;
  name: string;
  /** What it is, in the words of the rules; where it is something of its own, its name. */
  what: string;
  /** The items of the walkaround at which it is looked at. */
  items: string[];
  /** The kinds of flight for which the type's own list marks it required. */
  requiredFor: FlightKind[];
  /** Required by a directive: which one. */
  directive?: string;
  /** How it is made safe, and what the placard says. */
  deactivate?: string;
  placard?: string;
}

/** An aircraft's equipment. What is looked at by an item that nothing here names is asked about. */
export interface EquipmentList {
  equipment: Equipment[];
  /** Items whose subject is no equipment at all: structure, controls, engine, tyres, fuel, brakes. */
  never: string[];
  /** The day of the type's certification, where a rule hangs on it. */
  certified?: string;
}

/** One entry of an operator's approved minimum equipment list. */
export interface MinimumEntry {
  equipment: string;
  category: string;
  /** Days of its own, for a category without. */
  days?: number;
  installed: number;
  required: number;
  /** Kinds of flight for which it must work all the same. */
  notFor?: FlightKind[];
  operations?: string;
  maintenance?: string;
}

const leads = (step: DeferralStep): string[] => ("ask" in step ? [step.ask] : []);

/**
 * What is wrong with a set of questions: one that leads nowhere, two of one name, a circle, one that is never reached, a way on which nobody is asked
 * about a hazard before something is deferred is the rule set's own affair. Paths as in the file.
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
