import type { PreflightEvent } from "@cravix/core";
import type { CrewMember, CrewRole } from "./api/api-types";

interface PermissionEntry {
  /** Completes "Only a mechanic can ...". */
  label: string;
  roles: readonly CrewRole[];
}

/**
 * Which roles can do what, apart from the preflight itself, which is open to every member. Interface and server use this one table. The
 * deferral rules of an aircraft can restrict signatures further. An owner has a pilot's permissions.
 */
const PERMISSIONS = {
  "flight.log": {
    label: "log a flight",
    roles: ["student", "pilot", "instructor", "mechanic", "owner", "administrator"],
  },
  "flight.correct": { label: "correct a flight", roles: ["pilot", "instructor", "mechanic", "owner"] },
  "grade.raise": {
    label: "raise the grade of a discrepancy",
    roles: ["student", "pilot", "instructor", "mechanic", "owner"],
  },
  "grade.lower": { label: "lower the grade of a discrepancy", roles: ["instructor", "mechanic"] },
  "advice.log": {
    label: "log advice on a discrepancy",
    roles: ["student", "pilot", "instructor", "mechanic", "owner", "administrator"],
  },
  "discrepancy.defer": {
    label: "defer a discrepancy",
    roles: ["pilot", "instructor", "mechanic", "owner"],
  },
  "discrepancy.merge": { label: "merge discrepancies", roles: ["instructor", "mechanic"] },
  "daily.sign": {
    label: "sign the daily inspection",
    roles: ["pilot", "instructor", "mechanic", "owner"],
  },
  "work.release": { label: "release work to service", roles: ["mechanic"] },
  "work.release-preventive": {
    label: "release preventive maintenance",
    roles: ["pilot", "instructor", "mechanic", "owner"],
  },
  "meter.replace": { label: "replace a meter", roles: ["mechanic"] },
  "limit.set": { label: "set a limit for a discrepancy", roles: ["instructor", "mechanic"] },
  "component.move": { label: "remove or fit a component", roles: ["mechanic"] },
  "workshop.plan": {
    label: "publish the workshop plan",
    roles: ["mechanic", "owner", "administrator"],
  },
  "weighing.enter": { label: "enter a weighing", roles: ["mechanic", "owner"] },
  "person.others": {
    label: "see or change another person's due items",
    roles: ["instructor", "administrator"],
  },
  "person.authorise": { label: "enter a review or an authorisation", roles: ["instructor"] },
} as const satisfies Record<string, PermissionEntry>;

export type Permission = keyof typeof PERMISSIONS;

const entryOf = (permission: Permission): PermissionEntry => PERMISSIONS[permission];

export function mayDo(role: CrewRole | undefined, permission: Permission): boolean {
  return role !== undefined && entryOf(permission).roles.includes(role);
}

const withArticle = (role: CrewRole) => `${/^[aeio]/.test(role) ? "an" : "a"} ${role}`;

/** The roles with a permission, as a phrase: "a mechanic", "an instructor or a mechanic". */
export function rolesWithPermission(permission: Permission): string {
  const phrases = entryOf(permission).roles.map(withArticle);
  return phrases.length < 2
    ? (phrases[0] ?? "no one")
    : `${phrases.slice(0, -1).join(", ")} or ${phrases.at(-1)}`;
}

/**
 * The permission an event needs; undefined if every member has it. `before` is the recorded grade of the discrepancy, or the kind of the
 * person's due item. A new grade counts as lowered if it is lower than the recorded one or if that one is unknown.
 */
export function requiredPermission(event: PreflightEvent, before?: string): Permission | undefined {
  switch (event.type) {
    case "flight.logged":
      return "flight.log";
    case "flight.corrected":
      return "flight.correct";
    case "discrepancy.regraded":
      return before !== undefined && GRADES.indexOf(event.data.grade) >= GRADES.indexOf(before)
        ? "grade.raise"
        : "grade.lower";
    case "discrepancy.asked":
      return "advice.log";
    case "discrepancy.deferred":
      return "discrepancy.defer";
    case "discrepancy.merged":
      return "discrepancy.merge";
    case "daily.signed":
      return "daily.sign";
    case "work.released":
      return event.data.preventive ? "work.release-preventive" : "work.release";
    case "meter.replaced":
      return "meter.replace";
    case "discrepancy.limited":
      return "limit.set";
    case "component.removed":
    case "component.fitted":
      return "component.move";
    case "workshop.planned":
      return "workshop.plan";
    case "person.due-set":
    case "person.due-dropped":
    case "person.done":
      return personPermission(event, before);
    default:
      return undefined;
  }
}

const GRADES: readonly string[] = ["note", "watch", "ask", "stop"];

/** Kinds of due items that only an instructor enters. People enter the others, such as a medical, themselves. */
const ENTERED_BY_INSTRUCTOR: readonly string[] = ["authorisation", "review"];

/** `kind` is the recorded kind of the due item, if there is one. */
function personPermission(
  event: Extract<PreflightEvent, { data: { personId: string } }>,
  kind?: string,
): Permission | undefined {
  const kinds = [kind, event.type === "person.due-set" ? event.data.item.kind : undefined];
  if (kinds.some((one) => one !== undefined && ENTERED_BY_INSTRUCTOR.includes(one)))
    return "person.authorise";
  return event.data.personId === event.crewId ? undefined : "person.others";
}

/** Why this member cannot record an event; undefined if they can. */
export function permissionError(
  event: PreflightEvent,
  { name, role }: CrewMember,
  before?: string,
): string | undefined {
  const permission = requiredPermission(event, before);
  if (permission === "person.authorise" && "personId" in event.data && event.data.personId === event.crewId)
    return "You cannot enter a review or an authorisation for yourself. Ask an instructor to enter it.";
  if (!permission || mayDo(role, permission)) return undefined;
  return `Only ${rolesWithPermission(permission)} can ${entryOf(permission).label}. ${name} is ${withArticle(role)}.`;
}
