import type { AircraftSummary } from "@cravix/contract/client";
import { aircraftStatus, type OpenDiscrepancy, type PreflightEvent, type Standing } from "@cravix/core";
import { useFocusEffect } from "expo-router";
import { useCallback, useMemo, useState } from "react";
import { useAppSelector } from "../../store/hooks";
import { openDiscrepanciesHere, unsyncedEvents } from "../../store/preflight/unsynced-events";
import { useFleet } from "../../store/server/server-state";

/** What an aircraft comes to; nothing is claimed of one without a list, or whose open discrepancies have not been told. */
export interface Known {
  standing: Standing | undefined;
  open: OpenDiscrepancy[];
}

/** How each aircraft of the group stands: the server's word, and what was found on this device since, with a network or without. */
export function useStandings(): (aircraft: AircraftSummary) => Known {
  const fleet = useFleet();
  const toSend = useAppSelector((state) => state.sync.toSend);
  const [events, setEvents] = useState<PreflightEvent[]>([]);
  useFocusEffect(
    useCallback(() => {
      // toSend: what was found here has been sent, or more of it waits.
      if (fleet && toSend >= 0)
        unsyncedEvents(fleet).then(setEvents, () => {
          // A disk that does not answer: the server's word stands alone.
          setEvents([]);
        });
    }, [fleet, toSend]),
  );
  return useMemo(() => {
    const known = new Map(
      (fleet?.aircraft ?? []).map((aircraft): [string, Known] => {
        const { registration, stub, openDiscrepancies, fluids } = aircraft;
        const open = openDiscrepanciesHere(
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
                  today: new Date().toISOString().slice(0, 10),
                })
              : undefined,
          },
        ];
      }),
    );
    return ({ registration }) => known.get(registration) ?? { open: [], standing: undefined };
  }, [fleet, events]);
}
