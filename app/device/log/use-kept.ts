import { useCallback, useEffect, useRef, useState } from "react";
import { dropNote, keepNote, readNote } from "./notes";

export interface Kept<T> {
  value: T;
  /** Changes it, here and on the device. */
  change: (step: (before: T) => T) => void;
  drop: () => void;
}

/** A draft that survives a reload: what was typed on an apron is not typed twice. What the device kept never overwrites what was typed since. */
export function useKept<T>(key: string, first: T): Kept<T> {
  const [value, setValue] = useState(first);
  const latest = useRef(first);
  const touched = useRef(false);
  useEffect(() => {
    let left = false;
    touched.current = false;
    readNote<T>(key).then(
      (kept) => {
        if (kept === undefined || left || touched.current) return;
        latest.current = kept;
        setValue(kept);
      },
      // A disk that does not answer is told where something is to be kept.
      () => undefined,
    );
    return () => {
      left = true;
    };
  }, [key]);
  const change = useCallback(
    (step: (before: T) => T) => {
      touched.current = true;
      latest.current = step(latest.current);
      setValue(latest.current);
      void keepNote(key, latest.current);
    },
    [key],
  );
  const drop = useCallback(() => void dropNote(key).catch(() => undefined), [key]);
  return { value, change, drop };
}
