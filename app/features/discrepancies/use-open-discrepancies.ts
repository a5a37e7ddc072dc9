import type { AircraftBundle } from "@cravix/contract";
import type { OpenDiscrepancy } from "@cravix/core";
import { useFocusEffect } from "expo-router";
import { useCallback, useState } from "react";
import { allEvents } from "../../device/event-log";
import { useAppSelector } from "../../store/hooks";
import { openDiscrepanciesHere } from "../../store/preflight-actions";

/** What is open on an aircraft: the server's word, and what was found on this device since, with a network or without. */
export function useOpenDiscrepancies(bundle: AircraftBundle | undefined): OpenDiscrepancy[] {
  const crew = useAppSelector((state) => state.fleet.fleet?.crew);
  const [open, setOpen] = useState<OpenDiscrepancy[]>([]);
  useFocusEffect(
    useCallback(() => {
      if (bundle)
        void allEvents().then((events) => setOpen(openDiscrepanciesHere(bundle, events, crew ?? [])));
      else setOpen([]);
    }, [bundle, crew]),
  );
  return open;
}
