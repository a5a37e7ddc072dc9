import {
  type AirworthinessSnapshot,
  kindsOfFlight,
  plannedFlight,
  type RequestedFlight,
  totalsNow,
} from "./airworthiness-snapshot";
import type { DeferralRules, EquipmentList } from "./deferral/deferral-rules";
import { mayBeDeferred } from "./deferral/may-be-deferred";
import type { FlightKind } from "./due/due-item";
import { type DeferralStatus, type DiscrepancyDeferral, deferralStatus } from "./life/deferral";

/**
 * A deferral, with what the rules say about today's kinds of flight if it was not decided for them, and the kinds of flight on which
 * it depends.
 */
export type DeferralForFlight = DiscrepancyDeferral & { refused?: string; depends?: FlightKind[] };

/** What is known of the aircraft besides its rules. */
export interface DeferralData {
  rules: DeferralRules | undefined;
  list: (EquipmentList & { minimum?: Parameters<typeof mayBeDeferred>[0]["minimum"] }) | undefined;
  /** Year in which the aircraft was built. */
  built?: string;
}

/**
 * Checks a deferral against today's flight: for a kind of flight it does not cover, the rules are evaluated with the data on
 * file. Only a definite "not deferrable" is used; questions for a person remain open.
 */
export function deferralForFlight(
  deferral: DiscrepancyDeferral,
  conditions: RequestedFlight["conditions"],
  { rules, list, built }: DeferralData,
): DeferralForFlight {
  const { kinds, untold } = kindsOfFlight({ conditions });
  // Only the kinds of flight matter here: days and readings are judged at the flight.
  const { reading: _, ...days } = deferral;
  const standing = deferralStatus(days, { date: "0000-00-00", kinds });
  if (!rules || !list || deferral.equipment === undefined) return deferral;
  const outcome = mayBeDeferred({
    rules,
    list,
    equipmentId: deferral.equipment,
    flight: kinds,
    untold,
    found: "2000-01-01",
    broken: deferral.broken ?? 1,
    ...(list.minimum && { minimum: list.minimum }),
    ...(built !== undefined && { built }),
  });
  const made = outcome.depends ? { ...deferral, depends: outcome.depends } : deferral;
  const last = outcome.trail.at(-1)?.because;
  return standing.state === "asked anew" && outcome.result === "not deferrable"
    ? { ...made, refused: `${outcome.why}${last ? ` ${last}` : ""}` }
    : made;
}

/** Its status for a flight, with day and hours counted to the end of the flight. */
export function deferralStatusToday(
  deferral: DeferralForFlight,
  papers: AirworthinessSnapshot | undefined,
  asked: RequestedFlight,
  rules?: string,
): DeferralStatus | { state: "refused"; words: string } {
  if (deferral.refused) return { state: "refused", words: deferral.refused };
  const { kinds, untold } = kindsOfFlight(asked);
  const open = (deferral.depends ?? []).filter((kind) => untold.includes(kind));
  if (open.length > 0)
    return {
      state: "asked anew",
      words: `Whether it may stay deferred depends on the flight: ${open.join(", ")}. Say whether this flight is one.`,
    };
  const inForce = rules === undefined ? {} : { rules };
  if (!papers) return deferralStatus(deferral, { date: asked.at.slice(0, 10), kinds, ...inForce });
  const flight = plannedFlight(papers, asked);
  const now = totalsNow(papers, asked);
  const totals = Object.fromEntries(
    Object.entries(now).map(([meter, total]) => [meter, total + (flight.uses[meter] ?? 0)]),
  );
  return deferralStatus(deferral, { date: flight.ends, kinds, totals, ...inForce });
}
