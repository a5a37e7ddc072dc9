import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import { useFocusEffect } from "expo-router";
import { useCallback, useState } from "react";
import { localOpenDiscrepancies, unsyncedEvents } from "../../store/preflight/unsynced-events";
import { useCrew } from "../../store/server/server-state";
import type { KnownBundle } from "../../store/state/server-api";

/** Open discrepancies of an aircraft: from the server plus this device, online or offline. */
export function useOpenDiscrepancies(bundle: KnownBundle | undefined): OpenDiscrepancy[] {
  const crew = useCrew();
  const [open, setOpen] = useState<OpenDiscrepancy[]>([]);
  useFocusEffect(
    useCallback(() => {
      if (bundle)
        unsyncedEvents(bundle).then(
          (events) => setOpen(localOpenDiscrepancies(bundle, events, crew)),
          // If storage does not respond, use the server's data alone.
          () => setOpen(bundle.openDiscrepancies),
        );
      else setOpen([]);
    }, [bundle, crew]),
  );
  return open;
}
