import type { AircraftSummary } from "@cravix/contract/client";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { type AircraftStatus, aircraftStatus } from "@cravix/core/verdict/aircraft-status";
import { useFocusEffect } from "expo-router";
import { useCallback, useMemo, useState } from "react";
import { shallowEqual } from "react-redux";
import { localOpenDiscrepancies, unsyncedEvents } from "../../store/preflight/unsynced-events";
import { useFleet } from "../../store/server/server-state";
import { baseTimeZone, todayIn } from "../../store/server/today";
import { useAppSelector } from "../../store/state/hooks";

/** Status of an aircraft; none without a checklist, or before its open discrepancies are known. */
export interface Known {
  standing: AircraftStatus | undefined;
  open: OpenDiscrepancy[];
}

/** Status of each aircraft: from the server plus discrepancies found on this device, online or offline. */
export function useAircraftStatuses(): (aircraft: AircraftSummary) => Known {
  const fleet = useFleet();
  const toSend = useAppSelector((state) => state.sync.toSend);
  const [events, setEvents] = useState<PreflightEvent[]>([]);
  useFocusEffect(
    useCallback(() => {
      // Recalculate when discrepancies are sent or added.
      if (fleet && toSend >= 0)
        unsyncedEvents(fleet).then(setEvents, () => {
          // If storage does not respond, use the server's data alone.
          setEvents([]);
        });
    }, [fleet, toSend]),
  );
  // The day decides only where something is deferred; working it out is slow at start-up.
  const deferredHere = events.some(({ type }) => type === "discrepancy.deferred");
  const zones = useAppSelector(
    (state) =>
      (fleet?.aircraft ?? []).map(({ registration, open }) =>
        deferredHere || open.some(({ deferral }) => deferral) ? baseTimeZone(state, registration) : undefined,
      ),
    shallowEqual,
  );
  return useMemo(() => {
    const known = new Map(
      (fleet?.aircraft ?? []).map((aircraft, at): [string, Known] => {
        const { registration, stub, openDiscrepancies, fluids } = aircraft;
        const open = localOpenDiscrepancies(
          { aircraft: { registration }, openDiscrepancies: aircraft.open },
          events,
          fleet?.crew ?? [],
        );
        const told = stub === null && (openDiscrepancies === 0 || aircraft.open.length > 0);
        return [
          registration,
          {
            open,
            standing: told
              ? aircraftStatus({
                  open,
                  oil: fluids.oil,
                  papers: aircraft.papers ?? [],
                  ...(zones[at] !== undefined && { today: todayIn(zones[at]) }),
                })
              : undefined,
          },
        ];
      }),
    );
    return ({ registration }) => known.get(registration) ?? { open: [], standing: undefined };
  }, [fleet, events, zones]);
}
