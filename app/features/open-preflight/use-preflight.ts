import type { Phase } from "@cravix/core/aircraft/aircraft-type";
import { phaseOf } from "@cravix/core/checklist/list/list-places";
import { currentItem, phaseProgress } from "@cravix/core/checklist/next-item";
import { foldLedger } from "@cravix/core/ledger/fold-ledger";
import { judgePreflight } from "@cravix/core/verdict/judge-preflight";
import { computeVerdict } from "@cravix/core/verdict/verdict";
import { useEffect, useMemo, useState } from "react";
import { openPreflight } from "../../store/preflight/open-preflight";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { selectPreflight } from "../../store/state/preflight-slice";

/** Preflight of this address, restored from the device if necessary. */
export function usePreflight(id: string) {
  const dispatch = useAppDispatch();
  const ready = useAppSelector((state) => state.session.ready);
  const current = useAppSelector((state) => state.preflight.id);
  const folded = useAppSelector(selectPreflight);
  const [missing, setMissing] = useState(false);
  useEffect(() => {
    if (ready && current !== id) void dispatch(openPreflight(id)).then((found) => setMissing(!found));
  }, [ready, current, id, dispatch]);
  return { missing, preflight: current === id ? folded : null };
}

/** Derived state for the preflight screens, computed once per answer. */
export function useLoadedPreflight(folded: NonNullable<ReturnType<typeof selectPreflight>>) {
  const { list, state } = folded;
  return useMemo(() => {
    const item = currentItem(list, state);
    const phase: Phase | undefined = item && phaseOf(list, item);
    return {
      list,
      state,
      item,
      phase,
      progress: phaseProgress(list, state),
      ledger: foldLedger(list, state),
      judged: judgePreflight(list, state),
    };
  }, [list, state]);
}

export type LoadedPreflight = ReturnType<typeof useLoadedPreflight>;

export function useVerdict(folded: NonNullable<ReturnType<typeof selectPreflight>>) {
  return useMemo(() => computeVerdict(folded.list, folded.state), [folded]);
}
