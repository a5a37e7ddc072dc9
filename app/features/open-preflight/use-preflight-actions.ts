import { useMemo } from "react";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { answerActions } from "./answer-actions";
import { courseActions } from "./course-actions";
import { recordActions } from "./record-actions";
import type { LoadedPreflight } from "./use-preflight";

/** Actions of a preflight; each becomes an event. */
export function usePreflightActions({ list, state, item }: Pick<LoadedPreflight, "list" | "state" | "item">) {
  const dispatch = useAppDispatch();
  const me = useAppSelector((root) => root.session.crewId);
  return useMemo(() => {
    const on = { dispatch, list, state };
    return { ...courseActions({ ...on, item, me }), ...answerActions(on), ...recordActions(on) };
  }, [dispatch, list, state, item, me]);
}

export type Acts = ReturnType<typeof usePreflightActions>;
