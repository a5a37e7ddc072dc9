import { partOfTitle } from "../aircraft/part-of";
import { isRecord, type Plain, renamed, withTodaysCause } from "./rename";
import { upgradePreferences } from "./upgrade-event";

/** Upgrade function of each older format. */
const READ: Readonly<Record<string, (file: Plain) => Plain>> = {
  "cravix.aircraft-type/1": (type) => ({
    ...profile(type),
    format: "cravix.aircraft-type/2",
    ...each(type, "items", item),
  }),
  "cravix.aircraft/1": (aircraft) => ({
    ...aircraft,
    format: "cravix.aircraft/2",
    ...each(aircraft, "ownItems", item),
  }),
  "cravix.list/1": (list) => ({
    ...renamed(list, { school: "preferences" }),
    format: "cravix.list/2",
    ...("school" in list && !("preferences" in list) && { preferences: upgradePreferences(list.school) }),
    ...("type" in list && { type: isRecord(list.type) ? profile(list.type) : list.type }),
    ...each(list, "items", item),
    ...each(list, "after", item),
  }),
};

/**
 * Upgrades a file or a composed checklist to its newest format: `cravix.aircraft-type/1`, `cravix.aircraft/1` and `cravix.list/1`
 * become `/2`. Anything else is returned unchanged. The text behind a content hash is never changed, only upgraded when read.
 */
export function upgradeFile(value: unknown): unknown {
  if (!isRecord(value) || typeof value.format !== "string") return value;
  return Object.hasOwn(READ, value.format) ? (READ[value.format]?.(value) ?? value) : value;
}

const rule = (one: unknown): unknown =>
  isRecord(one) && "school" in one ? renamed(one, { school: "method" }) : one;

/** An item's part was the text before the colon of its title: "Left aileron: gap and edges". */
function item(one: unknown): unknown {
  const ruled = withTodaysCause(rule(one));
  // Version 1 identified the drill by this id.
  const now = isRecord(ruled) && ruled.id === "run-up.controls" ? { drill: "controls", ...ruled } : ruled;
  if (!isRecord(now) || typeof now.title !== "string" || "part" in now) return now;
  const part = partOfTitle(now.title);
  return part === undefined ? now : { ...now, part };
}

const profile = (type: Plain): Plain => ({
  ...("habits" in type ? renamed(type, { habits: "recommended" }) : type),
  ...each(type, "rules", rule),
});

function each(from: Plain, field: string, one: (value: unknown) => unknown): Plain {
  const value = from[field];
  return Array.isArray(value) ? { [field]: value.map(one) } : {};
}
