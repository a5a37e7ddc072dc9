import type { ComponentSnapshot } from "@cravix/core/airworthiness/component-moves";
import type { WorkshopPlan } from "@cravix/core/airworthiness/plan/workshop-plan";
import { useCallback, useEffect, useState } from "react";
import { api, ServerUnreachableError } from "../../device/api";
import { readNote, saveNote } from "../../device/log/notes";
import { useAppSelector } from "../../store/state/hooks";

/** A component in storage. */
export type OnShelf = ComponentSnapshot & {
  from: string;
  at: string;
  /** Why its times cannot be calculated. */
  problem?: string;
};

interface Workshop {
  plan: (WorkshopPlan & { at: string; crewId: string }) | null;
  shelf: OnShelf[];
}

const NOTHING: Workshop = { plan: null, shelf: [] };
const NOTE = "workshop";

/** The published workshop plan and components in storage; reloaded after sending. `away`: server not reachable. */
export function useWorkshop() {
  const toSend = useAppSelector((state) => state.sync.toSend);
  const [workshop, setWorkshop] = useState<Workshop>();
  const [away, setAway] = useState(false);
  const load = useCallback(async () => {
    try {
      const found = (await api.workshop()) as Workshop;
      setWorkshop(found);
      setAway(false);
      void saveNote(NOTE, found);
    } catch (error) {
      setAway(error instanceof ServerUnreachableError);
      const before = await readNote<Workshop>(NOTE).catch(() => undefined);
      setWorkshop((known) => known ?? before ?? NOTHING);
    }
  }, []);
  // Reload after sending: the plan may have been part of it.
  useEffect(() => {
    if (toSend >= 0) void load();
  }, [toSend, load]);
  return {
    plan: workshop?.plan,
    shelf: workshop?.shelf ?? NOTHING.shelf,
    known: workshop !== undefined,
    away,
  };
}
