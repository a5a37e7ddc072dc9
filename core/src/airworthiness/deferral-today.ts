import {
  type AirworthinessSnapshot,
  type FlightAsked,
  flightKindsOf,
  plannedFlight,
  totalsNow,
} from "./airworthiness-snapshot";
import type { DeferralRules, EquipmentList } from "./deferral/deferral-rules";
import { mayBeDeferred } from "./deferral/may-be-deferred";
import { type DeferralStanding, type DiscrepancyDeferral, deferralStanding } from "./life/deferral";

/** A deferral, and what the rules say of it for today's kinds of flight, where it was not decided for them. */
export type DeferralToday = DiscrepancyDeferral & { refused?: string };

/**
 * A deferral as it is met today: where a kind of flight is planned that it was not decided for, the rules are asked with what is on file. Only a plain "not
 * deferrable" is kept: anything that a person has to answer stays to be asked.
 */
export function deferralToday(
  deferral: DiscrepancyDeferral,
  conditions: FlightAsked["conditions"],
  rules: DeferralRules | undefined,
  list: (EquipmentList & { minimum?: Parameters<typeof mayBeDeferred>[0]["minimum"] }) | undefined,
): DeferralToday {
  const kinds = flightKindsOf(conditions);
  const standing = deferralStanding(deferral, { date: "0000-00-00", kinds });
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

/** How it stands for a flight: its day and hours counted to the flight's end. */
export function standingToday(
  deferral: DeferralToday,
  papers: AirworthinessSnapshot | undefined,
  asked: FlightAsked,
): DeferralStanding | { state: "refused"; words: string } {
  if (deferral.refused) return { state: "refused", words: deferral.refused };
  const kinds = flightKindsOf(asked.conditions);
  if (!papers) return deferralStanding(deferral, { date: asked.at.slice(0, 10), kinds });
  const flight = plannedFlight(papers, asked);
  const now = totalsNow(papers, asked);
  const totals = Object.fromEntries(
    Object.entries(now).map(([meter, total]) => [meter, total + (flight.uses[meter] ?? 0)]),
  );
  return deferralStanding(deferral, { date: flight.ends, kinds, totals });
}
