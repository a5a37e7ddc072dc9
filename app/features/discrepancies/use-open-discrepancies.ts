import type { OpenDiscrepancy } from "@cravix/core";
import { useFocusEffect } from "expo-router";
import { useCallback, useState } from "react";
import { openDiscrepanciesHere, unsyncedEvents } from "../../store/preflight/unsynced-events";
import type { KnownBundle } from "../../store/server/server-api";
import { useCrew } from "../../store/server/server-state";

/** What is open on an aircraft: the server's word, and what was found on this device since, with a network or without. */
export function useOpenDiscrepancies(bundle: KnownBundle | undefined): OpenDiscrepancy[] {
  const crew = useCrew();
  const [open, setOpen] = useState<OpenDiscrepancy[]>([]);
  useFocusEffect(
    useCallback(() => {
      if (bundle)
        unsyncedEvents(bundle).then(
          (events) => setOpen(openDiscrepanciesHere(bundle, events, crew)),
          // A disk that does not answer: the server's word stands alone.
          () => setOpen(bundle.openDiscrepancies),
        );
      else setOpen([]);
    }, [bundle, crew]),
  );
  return open;
}
