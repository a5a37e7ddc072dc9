import type { PreflightEvent } from "@cravix/core";
import type { CrewMember, CrewRole } from "./api/api-types";

/** What somebody can do besides walking, measuring and logging, which everybody may. */
export const DEEDS = [
  "log a flight",
  "correct a flight",
  "raise a grade",
  "lower a grade",
  "ask about a discrepancy",
  "defer",
  "merge",
  "sign the daily inspection",
  "release",
  "release preventive work",
  "replace a meter",
  "set a limit",
  "move a component",
  "plan the workshop",
  "enter a weighing",
  "see what is due of others",
  "authorise",
] as const;
export type Deed = (typeof DEEDS)[number];

/**
 * Who may do what, by the role of whoever holds the device. One table: a login will say who that is, and changes nothing here. Where the rules decide (who signs a
 * deferral), they are asked besides. An owner flies as a pilot.
 */
const MAY: Record<Deed, readonly CrewRole[]> = {
  "log a flight": ["student", "pilot", "instructor", "mechanic", "owner", "administrator"],
  "correct a flight": ["pilot", "instructor", "mechanic", "owner"],
  "raise a grade": ["student", "pilot", "instructor", "mechanic", "owner"],
  "lower a grade": ["instructor", "mechanic"],
  "ask about a discrepancy": ["student", "pilot", "instructor", "mechanic", "owner", "administrator"],
  defer: ["pilot", "instructor", "mechanic", "owner"],
  merge: ["instructor", "mechanic"],
  "sign the daily inspection": ["pilot", "instructor", "mechanic", "owner"],
  release: ["mechanic"],
  "release preventive work": ["pilot", "instructor", "mechanic", "owner"],
  "replace a meter": ["mechanic"],
  "set a limit": ["instructor", "mechanic"],
  "move a component": ["mechanic"],
  "plan the workshop": ["mechanic", "owner", "administrator"],
  "enter a weighing": ["mechanic", "owner"],
  "see what is due of others": ["instructor", "administrator"],
  authorise: ["instructor"],
};

export function mayDo(role: CrewRole | undefined, deed: Deed): boolean {
  return role !== undefined && MAY[deed].includes(role);
}

/** The roles that may, as they are spoken: "a mechanic", "an instructor or a mechanic". */
export function whoMay(deed: Deed): string {
  const spoken = MAY[deed].map((role) => `${/^[aeio]/.test(role) ? "an" : "a"} ${role}`);
  return spoken.length < 2
    ? (spoken[0] ?? "nobody")
    : `${spoken.slice(0, -1).join(", ")} or ${spoken.at(-1)}`;
}

/**
 * What an event is, as a deed; undefined for what everybody may. `before` is what is on record of the thing: a changed grade is lower where it says so, or where
 * nobody knows; a person's item is of the kind it says.
 */
export function deedOf(event: PreflightEvent, before?: string): Deed | undefined {
  switch (event.type) {
    case "flight.logged":
      return "log a flight";
    case "flight.corrected":
      return "correct a flight";
    case "discrepancy.regraded":
      return before !== undefined && ORDER.indexOf(event.data.grade) >= ORDER.indexOf(before)
        ? "raise a grade"
        : "lower a grade";
    case "discrepancy.asked":
      return "ask about a discrepancy";
    case "discrepancy.deferred":
      return "defer";
    case "discrepancy.merged":
      return "merge";
    case "daily.signed":
      return "sign the daily inspection";
    case "work.released":
      return event.data.preventive ? "release preventive work" : "release";
    case "meter.replaced":
      return "replace a meter";
    case "discrepancy.limited":
      return "set a limit";
    case "component.removed":
    case "component.fitted":
      return "move a component";
    case "workshop.planned":
      return "plan the workshop";
    case "person.due-set":
    case "person.due-dropped":
    case "person.done":
      return deedOfPerson(event, before);
    default:
      return undefined;
  }
}

/** What only an instructor gives, and what a person keeps for himself; the other is an instructor's, or who may see it. */
const GIVEN: readonly string[] = ["authorisation", "review"];

/** A person enters what is his own, as a medical; what is given by an instructor, an instructor enters. `kind`: of the item, where it is on record. */
function deedOfPerson(
  event: Extract<PreflightEvent, { data: { personId: string } }>,
  kind?: string,
): Deed | undefined {
  const kinds = [kind, event.type === "person.due-set" ? event.data.item.kind : undefined];
  if (kinds.some((one) => one !== undefined && GIVEN.includes(one))) return "authorise";
  return event.data.personId === event.crewId ? undefined : "see what is due of others";
}

const ORDER: readonly string[] = ["note", "watch", "ask", "stop"];

/** Why an event is not taken from this person; undefined where it is. */
export function notAllowed(
  event: PreflightEvent,
  { name, role }: CrewMember,
  before?: string,
): string | undefined {
  const deed = deedOf(event, before);
  if (deed === "authorise" && "personId" in event.data && event.data.personId === event.crewId)
    return "Nobody gives a review or an authorisation to himself.";
  if (!deed || mayDo(role, deed)) return undefined;
  return `${deed[0]?.toUpperCase()}${deed.slice(1)}: ${whoMay(deed)}. ${name} is ${role}.`;
}
