import { type PilotInDate, pilotInDate } from "@cravix/core/airworthiness/people/pilot-in-date";
import type { MinimaSet } from "@cravix/core/minima/minima";
import { useMemo } from "react";
import { flightOfPerson, minimaOf } from "../../store/preflight/local-pilot";
import { applyPatch, type Change } from "../../store/state/apply-patch";
import { useAppDispatch } from "../../store/state/hooks";
import { type PlannedDeparture, planned } from "../../store/state/planned-slice";
import type { KnownAircraft } from "../aircraft-frame";
import { usePersonDue } from "../person-due";
import { judgePlannedDeparture, type PlannedDepartureJudged } from "./judge-planned-departure";

export interface DepartureInHand extends PlannedDepartureJudged {
  plan: PlannedDeparture;
  set(part: Change<PlannedDeparture>): void;
}

/** Limits of the current crew member, and whether they are in date; from the server and stored for offline use. */
function usePilot({ bundle, crewId, plan: { conditions, flightMin } }: KnownAircraft) {
  const { record, unknown } = usePersonDue(crewId ?? undefined);
  const { aircraft, type, papers } = bundle;
  return useMemo((): { persons: MinimaSet[]; unknown: boolean; inDate?: PilotInDate } => {
    if (!record) return { persons: [], unknown };
    const flight = flightOfPerson({ aircraft, type, papers }, { conditions, minutes: flightMin });
    return {
      persons: minimaOf(record, { aircraft, type, papers }),
      unknown,
      inDate: pilotInDate(record, flight),
    };
  }, [record, unknown, aircraft, type, papers, conditions, flightMin]);
}

/** Calculates a planned departure from the inputs so far; again after each change. */
export function useDeparture(aircraft: KnownAircraft, now: string): DepartureInHand {
  const { bundle, plan: all } = aircraft;
  const { registration } = bundle.aircraft;
  const dispatch = useAppDispatch();
  const { persons, unknown, inDate } = usePilot(aircraft);
  const plan = all.departure ?? {};
  const set = (part: Change<PlannedDeparture>) =>
    void dispatch(planned({ registration, departure: applyPatch<PlannedDeparture>(plan, part) }));
  const judged = useMemo(
    () => judgePlannedDeparture(bundle, all, { persons, unknown, ...(inDate && { inDate }) }, now),
    [bundle, all, now, persons, unknown, inDate],
  );
  return { ...judged, plan, set };
}
