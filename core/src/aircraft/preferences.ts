import type { SampleFate } from "../fuel/fuel-inputs";

/** Tags for items and rules that belong to one method only. */
export const METHOD_TAGS = ["surfaces moved", "surfaces looked at", "brake first", "controls first"] as const;
export type MethodTag = (typeof METHOD_TAGS)[number];

export const METHODS = ["read-and-do", "flow, then check"] as const;
export const CARDS = ["one item each", "groups"] as const;
export const HANDS = ["as listed", "the other way round"] as const;
export const SURFACE_WAYS = ["moved", "looked at"] as const;
export const BRAKE_WAYS = ["brake first", "controls first"] as const;
export const RETURN_RULES = ["some items back", "start of the station", "start of the step"] as const;

/** How a pilot works on one aircraft type. */
export interface Preferences {
  method: (typeof METHODS)[number];
  /** First station of the walkaround; absent: as in the checklist. */
  start?: string;
  hand: (typeof HANDS)[number];
  /** The pilot's own station order; takes precedence over start and direction. */
  order?: string[];
  surfaces: (typeof SURFACE_WAYS)[number];
  brake: (typeof BRAKE_WAYS)[number];
  afterInterruption: (typeof RETURN_RULES)[number];
  /** What happens to a clean fuel sample; absent in preflights recorded before it was asked. */
  sample?: SampleFate;
  /** Whether parts seen in one look share a card; absent: one card each. */
  cards?: (typeof CARDS)[number];
}

/** Method the type itself requires, with the reason. */
export interface Recommended {
  surfaces?: { way: Preferences["surfaces"]; why: string };
  brake?: { way: Preferences["brake"]; why: string };
}

/** Complete walkarounds of a type before a flow from memory is offered (common practice). */
export const WALKAROUNDS_BEFORE_FLOW = 10;
/** Complete walkarounds before parts may share a card; a student reads each one separately (common practice). */
export const WALKAROUNDS_BEFORE_CARDS = 10;

/** True if this pilot may have several parts on one card, given the complete walkarounds on this type. */
export function mayGroup(laps: number, role: string | undefined): boolean {
  return laps >= WALKAROUNDS_BEFORE_CARDS && role !== "student";
}

/** How far "some items back" goes (common practice). */
export const ITEMS_BACK = 3;

/**
 * Default preferences: read-and-do; stations in checklist order; surfaces and brake as the type requires, else moved and brake
 * first; after an interruption, back to the start of the station. Source: common practice.
 */
export function defaultPreferences(recommended: Recommended | undefined): Preferences {
  return {
    method: "read-and-do",
    hand: "as listed",
    surfaces: recommended?.surfaces?.way ?? "moved",
    brake: recommended?.brake?.way ?? "brake first",
    afterInterruption: "start of the station",
    sample: "discarded",
  };
}

/** One sentence for each setting that explains it. */
export function preferenceReasons(
  recommended: Recommended | undefined,
  laps: number,
  role?: string,
): Record<"cards" | "method" | "lap" | "surfaces" | "brake" | "afterInterruption" | "sample", string> {
  return {
    cards: mayGroup(laps, role)
      ? `You have ${laps} complete walkarounds on this type, so parts you see in one look can share a card. Locks, fuel, oil, brakes and other critical items stay separate.`
      : role === "student"
        ? "Students check each part separately. That is how the habit is learned."
        : `One part per card until you have ${WALKAROUNDS_BEFORE_CARDS} complete walkarounds on this type. You have ${laps}.`,
    method:
      laps >= WALKAROUNDS_BEFORE_FLOW
        ? `You have ${laps} complete walkarounds on this type. You can do it from memory, then use the checklist to catch anything missed.`
        : `Read each item, then do it, until you have ${WALKAROUNDS_BEFORE_FLOW} complete walkarounds on this type. You have ${laps}.`,
    lap: "Use the same route every time. A fixed route makes it hard to miss an item.",
    surfaces:
      recommended?.surfaces?.why ??
      "Moving a surface by hand lets you feel a binding hinge. This type has no restriction.",
    brake:
      recommended?.brake?.why ??
      "The parking brake holds the aircraft while you look down. This type has no restriction.",
    afterInterruption:
      "The item you were on when interrupted is the one most easily missed. Repeating the station costs a minute.",
    sample:
      "A sample is never perfectly clean, so put it in the waste container. Some pilots pour a clean sample back; some keep it for the mechanic.",
  };
}

/** Method tags that follow from a pilot's preferences. */
export function methodTags(preferences: Pick<Preferences, "surfaces" | "brake">): ReadonlySet<MethodTag> {
  return new Set<MethodTag>([
    preferences.surfaces === "moved" ? "surfaces moved" : "surfaces looked at",
    preferences.brake,
  ]);
}

/**
 * Stations of the walkaround in this pilot's order: their own order, else the checklist's, from their start and in their
 * direction. A station missing from their order (new in the checklist) keeps its place behind its predecessor; none is lost.
 */
export function walkaroundOrder<S extends { id: string }>(
  stations: readonly S[],
  preferences: Preferences | undefined,
): S[] {
  if (!preferences) return [...stations];
  if (preferences.order) {
    const named = preferences.order.flatMap((id) => stations.find((s) => s.id === id) ?? []);
    const result = [...new Set(named)];
    stations.forEach((station, i) => {
      if (result.includes(station)) return;
      const before = stations[i - 1];
      result.splice(before ? result.indexOf(before) + 1 : 0, 0, station);
    });
    return result;
  }
  const turned = preferences.hand === "the other way round" ? [...stations].reverse() : [...stations];
  const at = preferences.start ? turned.findIndex((s) => s.id === preferences.start) : 0;
  return at > 0 ? [...turned.slice(at), ...turned.slice(0, at)] : turned;
}
