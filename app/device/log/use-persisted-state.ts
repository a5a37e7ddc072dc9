import { useCallback, useEffect, useRef, useState } from "react";
import { answersInTime } from "./database";
import { changeNote, dropNote, readNote, saveNote } from "./notes";

type Step<T> = (before: T) => T;

export interface Kept<T> {
  value: T;
  /**
   * Applies a step here and in storage. May run again on the stored value if that arrives later, so it must not depend on the
   * displayed value.
   */
  change: (step: Step<T>) => void;
  drop: () => void;
}

/** Steps applied before the stored value arrived. */
interface Early<T> {
  steps: Step<T>[];
  dropped: boolean;
  /** Initial value if nothing is stored. */
  from: T;
  /** True if storage rejected a step. */
  refused: boolean;
}

/**
 * A draft that survives a reload. Steps made before storage responds are applied to the stored value: typing early in one field
 * does not clear the others.
 */
export function usePersistedState<T>(key: string, first: T): Kept<T> {
  const [value, setValue] = useState(first);
  const latest = useRef(first);
  const early = useRef<Early<T>>({ steps: [], dropped: false, from: first, refused: false });
  const told = useRef(false);
  const empty = useRef(first);
  empty.current = first;
  const name = useRef(key);
  useEffect(() => {
    let left = false;
    // A new key starts with an empty draft: text of one item or person is not shown for the next.
    if (name.current !== key) {
      name.current = key;
      latest.current = empty.current;
      setValue(empty.current);
    }
    const mine: Early<T> = { steps: [], dropped: false, from: latest.current, refused: false };
    early.current = mine;
    told.current = false;
    const settle = (kept: T | undefined) => {
      if (left) return;
      told.current = true;
      if (mine.dropped || (kept === undefined && mine.steps.length === 0)) return;
      latest.current = mine.steps.reduce((before, step) => step(before), kept ?? mine.from);
      setValue(latest.current);
      if (mine.refused) void saveNote(key, latest.current);
    };
    // Storage that does not respond is reported when saving.
    readNote<T>(key).then(settle, () => settle(undefined));
    return () => {
      left = true;
    };
  }, [key]);
  const change = useCallback(
    (step: Step<T>) => {
      latest.current = step(latest.current);
      setValue(latest.current);
      if (told.current) {
        void saveNote(key, latest.current);
        return;
      }
      const mine = early.current;
      mine.steps.push(step);
      // Apply to the stored value in one transaction: the page may be gone before it is read.
      answersInTime(changeNote<T>(key, (kept) => step(kept ?? mine.from))).catch(() => {
        mine.refused = true;
        return mine.dropped ? undefined : saveNote(key, latest.current);
      });
    },
    [key],
  );
  const drop = useCallback(() => {
    early.current.dropped = true;
    told.current = true;
    void dropNote(key).catch(() => undefined);
  }, [key]);
  return { value, change, drop };
}
