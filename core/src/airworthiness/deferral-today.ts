import {
  type AirworthinessSnapshot,
  flightKindsOf,
  plannedFlight,
  type RequestedFlight,
  totalsNow,
} from "./airworthiness-snapshot";
import type { DeferralRules, EquipmentList } from "./deferral/deferral-rules";
import { mayBeDeferred } from "./deferral/may-be-deferred";
import { type DeferralStatus, type DiscrepancyDeferral, deferralStatus } from "./life/deferral";

/** A deferral, with what the rules say about today's kinds of flight if it was not decided for them. */
export type DeferralForFlight = DiscrepancyDeferral & { refused?: string };

/**
 * Checks a deferral against today's flight: for a kind of flight it does not cover, the rules are evaluated with the data on
 * file. Only a definite "not deferrable" is used; questions for a person remain open.
 */
export function deferralForFlight(
  deferral: DiscrepancyDeferral,
  conditions: RequestedFlight["conditions"],
  rules: DeferralRules | undefined,
  list: (EquipmentList & { minimum?: Parameters<typeof mayBeDeferred>[0]["minimum"] }) | undefined,
): DeferralForFlight {
  const kinds = flightKindsOf(conditions);
  const standing = deferralStatus(deferral, { date: "0000-00-00", kinds });
  if (standing.state !== "asked anew" || !rules || !list || deferral.equipment === undefined) return deferral;
  const outcome = mayBeDeferred({
    rules,
    list,
    equipmentId: deferral.equipment,
    flight: kinds,
    found: "2000-01-01",
    ...(list.minimum && { minimum: list.minimum }),
  });
  const last = outcome.trail.at(-1)?.because;
  return outcome.result === "not deferrable"
    ? { ...deferral, refused: `${outcome.why}${last ? ` ${last}` : ""}` }
    : deferral;
}

/** Its status for a flight, with day and hours counted to the end of the flight. */
export function deferralStatusToday(
  deferral: DeferralForFlight,
  papers: AirworthinessSnapshot | undefined,
  asked: RequestedFlight,
): DeferralStatus | { state: "refused"; words: string } {
  if (deferral.refused) return { state: "refused", words: deferral.refused };
  const kinds = flightKindsOf(asked.conditions);
  if (!papers) return deferralStatus(deferral, { date: asked.at.slice(0, 10), kinds });
  const flight = plannedFlight(papers, asked);
  const now = totalsNow(papers, asked);
  const totals = Object.fromEntries(
    Object.entries(now).map(([meter, total]) => [meter, total + (flight.uses[meter] ?? 0)]),
  );
  return deferralStatus(deferral, { date: flight.ends, kinds, totals });
}
