import type { EventData, EventType } from "@cravix/core/checklist/stream/events";
import { useEffect, useRef, useState } from "react";
import type { DefaultValues, FieldErrors, FieldValues, Resolver, UseFormReturn } from "react-hook-form";
import { eventResolver } from "./event-resolver";
import { type Entry, errorsOf, firstFault } from "./form-faults";
import { useFormLibrary } from "./form-library";
import { useFormDraft } from "./use-form-draft";

export interface EntryForm<D extends FieldValues, Out> extends UseFormReturn<D, unknown, Out> {
  /** Validates, and saves if nothing is wrong; what is only unusual is asked once. */
  submit: () => void;
  /** What is unusual and waits for a second press. */
  questions: readonly string[];
  /** Words of the first fault. */
  fault: string | undefined;
  /** True once a stored draft, if any, is in the fields. */
  ready: boolean;
  /** True if the form opened with a draft from before. */
  restored: boolean;
  /** Drops the draft and begins again. */
  startAgain: () => void;
}

interface FormOptions<D extends FieldValues, Out> {
  first: D;
  /** Turns the values into data, or says what is wrong with them. */
  read: (values: D) => Entry<Out>;
  /** What is unusual about the data, in sentences. Confirmed by submitting the same data again. */
  ask?: (data: Out) => readonly string[];
  /** Shows the fault of a field while it is being changed, for forms that cannot be submitted until all is right. */
  live?: boolean;
  /** Name of the draft on this device; without one nothing is kept. */
  keep?: string;
  /** Records the data. `despite`: the questions that were confirmed. A promise of `false` means not saved: everything stays. */
  onEntered: (data: Out, despite: readonly string[]) => unknown;
  /** Told when a submit finds faults. */
  onFaults?: (errors: FieldErrors<D>) => void;
}

/** A form that records one event: its values, their validation, questions to confirm, and the draft kept on the device. */
export function useEntryForm<D extends FieldValues, T extends EventType>({
  type,
  ...options
}: FormOptions<D, EventData[T]> & { type: T }): EntryForm<D, EventData[T]> {
  return useForm<D, EventData[T]>(options, eventResolver(type, options.read));
}

/** A form whose result is not an event: a part of a plan, or a file with its own schema, which `read` applies. */
export function useDataForm<D extends FieldValues, Out>({
  read,
  ...options
}: Omit<FormOptions<D, Out>, "read"> & { read: (values: D) => Entry<Out> | Promise<Entry<Out>> }): EntryForm<
  D,
  Out
> {
  return useForm<D, Out>(options, async (values) => {
    const entry = await read(values);
    return "data" in entry
      ? { values: entry.data, errors: {} }
      : { values: {}, errors: errorsOf<D>(entry.faults) };
  });
}

const NONE = { key: "", questions: [] as readonly string[] };

function useForm<D extends FieldValues, Out>(
  { first, ask, keep, live = false, onEntered, onFaults }: Omit<FormOptions<D, Out>, "read">,
  resolver: Resolver<D, unknown, Out>,
): EntryForm<D, Out> {
  const form = useFormLibrary().useForm<D, unknown, Out>({
    defaultValues: first as DefaultValues<D>,
    resolver,
    mode: live ? "onChange" : "onSubmit",
    shouldFocusError: false,
  });
  const draft = useFormDraft(form, first, keep);
  // Saving may bring new proposals.
  const latest = useRef(first);
  latest.current = first;
  const [asked, setAsked] = useState(NONE);
  const { subscribe } = form;
  useEffect(() => subscribe({ formState: { values: true }, callback: () => setAsked(NONE) }), [subscribe]);
  const submit = form.handleSubmit(async (data) => {
    const questions = ask?.(data) ?? [];
    const key = JSON.stringify(data);
    if (questions.length > 0 && asked.key !== key) {
      setAsked({ key, questions });
      return;
    }
    const saved = await onEntered(data, questions);
    if (saved === false) return;
    draft.drop();
    form.reset(latest.current);
  }, onFaults);
  return {
    ...form,
    submit: () => void submit(),
    questions: asked.questions,
    fault: firstFault(form.formState.errors),
    ready: draft.ready,
    restored: draft.restored,
    startAgain: () => {
      draft.drop();
      form.reset(first);
    },
  };
}
