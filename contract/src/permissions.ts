import type { EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { CrewMember, CrewRole } from "./api/api-types";

interface DeedEntry {
  /** Completes "Only a mechanic can ...". */
  label: string;
  roles: readonly CrewRole[];
}

const EVERYONE: readonly CrewRole[] = [
  "student",
  "pilot",
  "instructor",
  "mechanic",
  "owner",
  "administrator",
];

/**
 * Which roles can do what. Interface and server use this one table, for every event and every file. The deferral rules of an
 * aircraft can restrict signatures further. An owner has a pilot's permissions.
 */
const DEEDS = {
  "preflight.record": { label: "record a preflight", roles: EVERYONE },
  "flight.log": { label: "log a flight", roles: EVERYONE },
  "flight.correct": { label: "correct a flight", roles: ["pilot", "instructor", "mechanic", "owner"] },
  "fluids.import": { label: "import a fuel or oil log", roles: EVERYONE },
  "grade.raise": {
    label: "raise the grade of a discrepancy",
    roles: ["student", "pilot", "instructor", "mechanic", "owner"],
  },
  "grade.lower": { label: "lower the grade of a discrepancy", roles: ["instructor", "mechanic"] },
  "advice.log": { label: "log advice on a discrepancy", roles: EVERYONE },
  "discrepancy.close": { label: "sign off a discrepancy", roles: ["mechanic"] },
  "discrepancy.defer": {
    label: "defer a discrepancy",
    roles: ["pilot", "instructor", "mechanic", "owner"],
  },
  "discrepancy.merge": { label: "merge discrepancies", roles: ["instructor", "mechanic"] },
  "document.renew": {
    label: "renew a document",
    roles: ["pilot", "instructor", "mechanic", "owner", "administrator"],
  },
  "daily.sign": {
    label: "sign the daily inspection",
    roles: ["pilot", "instructor", "mechanic", "owner"],
  },
  "work.release": { label: "release work to service", roles: ["mechanic"] },
  "work.release-preventive": {
    label: "release preventive maintenance",
    roles: ["pilot", "instructor", "mechanic", "owner"],
  },
  "release.withdraw": { label: "strike out a release", roles: ["mechanic"] },
  "meter.replace": { label: "replace a meter", roles: ["mechanic"] },
  "limit.set": { label: "set a limit for a discrepancy", roles: ["instructor", "mechanic"] },
  "component.move": { label: "remove or fit a component", roles: ["mechanic"] },
  "workshop.plan": {
    label: "publish the workshop plan",
    roles: ["mechanic", "owner", "administrator"],
  },
  "weighing.enter": { label: "enter a weighing", roles: ["mechanic", "owner", "administrator"] },
  "items.edit": {
    label: "edit added items",
    roles: ["instructor", "mechanic", "owner", "administrator"],
  },
  "aircraft.edit": {
    label: "add or change an aircraft, its type, limits or due items",
    roles: ["mechanic", "owner", "administrator"],
  },
  "airfield.edit": {
    label: "add or change an airfield",
    roles: ["instructor", "mechanic", "owner", "administrator"],
  },
  "rules.edit": { label: "add or change a rule set", roles: ["administrator"] },
  "crew.edit": { label: "add people or change their roles", roles: ["administrator"] },
  "person.self": { label: "change their own due items", roles: EVERYONE },
  "person.others": {
    label: "see or change another person's due items",
    roles: ["instructor", "administrator"],
  },
  "person.authorise": { label: "enter a review or an authorisation", roles: ["instructor"] },
} as const satisfies Record<string, DeedEntry>;

export type Deed = keyof typeof DEEDS;

/** Who asks: a member of the group. */
export type Principal = Pick<CrewMember, "role"> & Partial<CrewMember>;

/** What the answer depends on besides the role. */
export interface Subject {
  /** Person whose record it changes. */
  personId?: string;
  /** For a sign-off or a struck release: the same person released it as preventive maintenance. */
  released?: boolean;
  /** For rules and people: true if the group has an administrator. Without one, its owners decide. */
  hasAdministrator?: boolean;
}

const entryOf = (deed: Deed): DeedEntry => DEEDS[deed];

/** True if this person may do it. The only place that decides so; without a person the answer is no. */
export function can(principal: Principal | undefined, deed: Deed, subject: Subject = {}): boolean {
  if (!principal) return false;
  const { role, id } = principal;
  if (deed === "person.authorise" && id !== undefined && subject.personId === id) return false;
  if ((deed === "discrepancy.close" || deed === "release.withdraw") && subject.released) return true;
  if ((deed === "crew.edit" || deed === "rules.edit") && subject.hasAdministrator === false)
    return role === "owner";
  return entryOf(deed).roles.includes(role);
}

/** True if every member may do it, whatever their role. */
export function isForEveryone(deed: Deed): boolean {
  return entryOf(deed).roles === EVERYONE;
}

const withArticle = (role: CrewRole) => `${/^[aeio]/.test(role) ? "an" : "a"} ${role}`;

/** The roles that may do it, as a phrase: "a mechanic", "an instructor or a mechanic". */
export function rolesThatCan(deed: Deed): string {
  const phrases = entryOf(deed).roles.map(withArticle);
  return phrases.length < 2
    ? (phrases[0] ?? "no one")
    : `${phrases.slice(0, -1).join(", ")} or ${phrases.at(-1)}`;
}

/** Why this person may not do it, as a sentence; undefined if they may. */
export function whyNot(
  principal: Principal | undefined,
  deed: Deed,
  subject: Subject = {},
): string | undefined {
  if (can(principal, deed, subject)) return undefined;
  if (deed === "person.authorise" && principal?.id !== undefined && principal.id === subject.personId)
    return "You cannot enter a review or an authorisation for yourself. Ask an instructor to enter it.";
  const only = `Only ${rolesThatCan(deed)} can ${entryOf(deed).label}.`;
  if (!principal) return `${only} Select your name first.`;
  return `${only} ${principal.name ?? "This person"} is ${withArticle(principal.role)}.`;
}

const GRADES: readonly string[] = ["note", "watch", "ask", "stop"];

/** Kinds of due items that only an instructor enters. People enter the others, such as a medical, themselves. */
const ENTERED_BY_INSTRUCTOR: readonly string[] = ["authorisation", "review"];

type PersonEvent = Extract<PreflightEvent, { data: { personId: string } }>;

/** `kind` is the recorded kind of the due item, if there is one. */
function personDeed(event: PersonEvent, kind: string | undefined): Deed {
  const kinds = [kind, event.type === "person.due-set" ? event.data.item.kind : undefined];
  if (kinds.some((one) => one !== undefined && ENTERED_BY_INSTRUCTOR.includes(one)))
    return "person.authorise";
  return event.data.personId === event.crewId ? "person.self" : "person.others";
}

/**
 * What an event does, by kind. `before` is the recorded grade of the discrepancy, or the kind of the person's due item. A new grade
 * counts as lowered if it is lower than the recorded one or if that one is unknown.
 */
export const EVENT_DEEDS: {
  [T in EventType]: Deed | ((event: Extract<PreflightEvent, { type: T }>, before?: string) => Deed);
} = {
  "preflight.started": "preflight.record",
  "item.answered": "preflight.record",
  "item.postponed": "preflight.record",
  "item.visited": "preflight.record",
  "item.undone": "preflight.record",
  "station.flowed": "preflight.record",
  "crew.joined": "preflight.record",
  "crew.left": "preflight.record",
  "reading.taken": "preflight.record",
  "sample.taken": "preflight.record",
  "wings.rocked": "preflight.record",
  "fuel.uplifted": "preflight.record",
  "fuel.told": "preflight.record",
  "load.told": "preflight.record",
  "weather.told": "preflight.record",
  "briefing.given": "preflight.record",
  "oil.added": "preflight.record",
  "run-up.read": "preflight.record",
  "blade.pulled": "preflight.record",
  "discrepancy.opened": "preflight.record",
  "discrepancy.observed": "preflight.record",
  "discrepancy.withdrawn": "preflight.record",
  "discrepancy.photographed": "preflight.record",
  "discrepancy.closed": "discrepancy.close",
  "discrepancy.deferred": "discrepancy.defer",
  "discrepancy.regraded": ({ data }, before) =>
    before !== undefined && GRADES.indexOf(data.grade) >= GRADES.indexOf(before)
      ? "grade.raise"
      : "grade.lower",
  "discrepancy.asked": "advice.log",
  "discrepancy.merged": "discrepancy.merge",
  "discrepancy.limited": "limit.set",
  "flight.logged": "flight.log",
  "flight.corrected": "flight.correct",
  "work.released": ({ data }) => (data.preventive ? "work.release-preventive" : "work.release"),
  "release.withdrawn": "release.withdraw",
  "meter.replaced": "meter.replace",
  "component.removed": "component.move",
  "component.fitted": "component.move",
  "workshop.planned": "workshop.plan",
  "person.due-set": personDeed,
  "person.due-dropped": personDeed,
  "person.done": personDeed,
  "daily.signed": "daily.sign",
  "document.renewed": "document.renew",
  "assessment.waived": "preflight.record",
  interrupted: "preflight.record",
  resumed: "preflight.record",
  "verdict.signed": "preflight.record",
};

/** What this event does. */
export function deedOf(event: PreflightEvent, before?: string): Deed {
  // The table pairs each kind with its function; TypeScript cannot follow that through a union.
  const deed = EVENT_DEEDS[event.type] as Deed | ((event: PreflightEvent, before?: string) => Deed);
  return typeof deed === "function" ? deed(event, before) : deed;
}
