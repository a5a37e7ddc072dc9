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
] as const;
export type Deed = (typeof DEEDS)[number];

/**
 * Who may do what, by the role of whoever holds the device. One table: a login will say who that is, and changes nothing here. Where the rules decide (who signs a
 * deferral), they are asked besides. An owner flies as a pilot.
 */
const MAY: Record<Deed, readonly CrewRole[]> = {
  "log a flight": ["student", "pilot", "instructor", "mechanic", "owner"],
  "correct a flight": ["pilot", "instructor", "mechanic", "owner"],
  "raise a grade": ["student", "pilot", "instructor", "mechanic", "owner"],
  "lower a grade": ["instructor", "mechanic"],
  "ask about a discrepancy": ["student", "pilot", "instructor", "mechanic", "owner"],
  defer: ["pilot", "instructor", "mechanic", "owner"],
  merge: ["instructor", "mechanic"],
  "sign the daily inspection": ["pilot", "instructor", "mechanic", "owner"],
  release: ["mechanic"],
  "release preventive work": ["pilot", "instructor", "mechanic", "owner"],
  "replace a meter": ["mechanic"],
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

/** What an event is, as a deed; undefined for what everybody may. A changed grade is lower where `before` says so, or where nobody knows. */
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
    default:
      return undefined;
  }
}

const ORDER: readonly string[] = ["note", "watch", "ask", "stop"];

/** Why an event is not taken from this person; undefined where it is. */
export function notAllowed(
  event: PreflightEvent,
  { name, role }: CrewMember,
  before?: string,
): string | undefined {
  const deed = deedOf(event, before);
  if (!deed || mayDo(role, deed)) return undefined;
  return `${deed[0]?.toUpperCase()}${deed.slice(1)}: ${whoMay(deed)}. ${name} is ${role}.`;
}
