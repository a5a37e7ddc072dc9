import { useCallback, useEffect, useRef, useState } from "react";
import { dropNote, readNote, writeNote } from "./notes";

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
    void readNote<T>(key).then((kept) => {
      if (kept === undefined || left || touched.current) return;
      latest.current = kept;
      setValue(kept);
    });
    return () => {
      left = true;
    };
  }, [key]);
  const change = useCallback(
    (step: (before: T) => T) => {
      touched.current = true;
      latest.current = step(latest.current);
      setValue(latest.current);
      void writeNote(key, latest.current);
    },
    [key],
  );
  const drop = useCallback(() => void dropNote(key), [key]);
  return { value, change, drop };
}
