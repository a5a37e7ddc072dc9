import { useCallback, useEffect, useRef, useState } from "react";
import { answersInTime } from "./database";
import { changeNote, dropNote, keepNote, readNote } from "./notes";

type Step<T> = (before: T) => T;

export interface Kept<T> {
  value: T;
  /** Changes it, here and on the device. Called once more on what the device kept, where that comes only afterwards: what it does must not hang on what was shown. */
  change: (step: Step<T>) => void;
  drop: () => void;
}

/** What was done to a draft before the device had told what it kept of it. */
interface Early<T> {
  steps: Step<T>[];
  dropped: boolean;
  /** What it is where the device kept nothing. */
  from: T;
  /** Whether the disk did not take a step of it. */
  refused: boolean;
}

/**
 * A draft that survives a reload: what was typed on an apron is not typed twice.
 * Whoever types before the disk has answered changes what it kept and replaces nothing: one field typed at once does not empty the others.
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
    // Another draft begins empty: what was written for one item or person is not shown for the next.
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
      if (mine.refused) void keepNote(key, latest.current);
    };
    // A disk that does not answer is told where something is to be kept.
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
        void keepNote(key, latest.current);
        return;
      }
      const mine = early.current;
      mine.steps.push(step);
      // Onto what lies there, in one go and at once: this page may be gone before it hears what that is.
      answersInTime(changeNote<T>(key, (kept) => step(kept ?? mine.from))).catch(() => {
        mine.refused = true;
        return mine.dropped ? undefined : keepNote(key, latest.current);
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
