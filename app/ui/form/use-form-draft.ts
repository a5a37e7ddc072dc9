import { useCallback, useEffect, useRef, useState } from "react";
import type { FieldValues, UseFormReturn } from "react-hook-form";
import { dropNote, readNote, saveNoteChange } from "../../device/log/notes";

/**
 * Keeps what was entered in a form on the device until it is saved or dropped. Only fields that a person changed are kept, so that
 * proposed values stay fresh; each change is applied to the stored draft, also while that is still being read.
 */
export function useFormDraft<D extends FieldValues, Out>(
  { subscribe, reset, getValues }: Pick<UseFormReturn<D, unknown, Out>, "subscribe" | "reset" | "getValues">,
  first: D,
  key: string | undefined,
): { ready: boolean; restored: boolean; drop: () => void } {
  const [ready, setReady] = useState(key === undefined);
  const [restored, setRestored] = useState(false);
  const typed = useRef<Partial<D>>({});
  const proposed = JSON.stringify(first);
  const shown = useRef(proposed);
  useEffect(() => {
    typed.current = {};
    const stop = subscribe({
      formState: { values: true },
      callback: ({ name, values }) => {
        const field = name?.split(".")[0];
        if (field === undefined) return;
        const change = { [field]: values[field] } as Partial<D>;
        typed.current = { ...typed.current, ...change };
        if (key !== undefined) void saveNoteChange<Partial<D>>(key, (before) => ({ ...before, ...change }));
      },
    });
    return stop;
  }, [key, subscribe]);
  useEffect(() => {
    if (key === undefined) return undefined;
    let left = false;
    setRestored(false);
    const restore = (kept: Partial<D> | undefined) => {
      if (left || !kept) return;
      typed.current = { ...kept, ...typed.current };
      reset({ ...getValues(), ...typed.current });
      setRestored(true);
    };
    const settled = () => {
      if (!left) setReady(true);
    };
    // Storage that does not respond is reported when saving.
    readNote<Partial<D>>(key)
      .then(restore, () => undefined)
      .then(settled);
    return () => {
      left = true;
    };
  }, [key, reset, getValues]);
  // New proposals, such as the last meter reading, fill what the person has not changed.
  useEffect(() => {
    if (shown.current === proposed) return;
    shown.current = proposed;
    reset({ ...(JSON.parse(proposed) as D), ...typed.current });
  }, [proposed, reset]);
  const drop = useCallback(() => {
    typed.current = {};
    setRestored(false);
    if (key !== undefined) void dropNote(key).catch(() => undefined);
  }, [key]);
  return { ready, restored, drop };
}
