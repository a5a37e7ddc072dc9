import type { EventData, EventType } from "@cravix/core/checklist/stream/events";
import { useEffect, useState } from "react";
import type { DefaultValues, FieldValues, UseFormReturn } from "react-hook-form";
import { eventResolver } from "./event-resolver";
import { type Entry, firstFault } from "./form-faults";
import { useFormLibrary } from "./form-library";
import { useFormDraft } from "./use-form-draft";

export interface EntryForm<D extends FieldValues, Out> extends UseFormReturn<D, unknown, Out> {
  /** Validates, and saves if nothing is wrong; what is only unusual is asked once. */
  submit: () => void;
  /** What is unusual and waits for a second press. */
  questions: readonly string[];
  /** Words of the first fault. */
  fault: string | undefined;
  /** True if the form opened with a draft from before. */
  restored: boolean;
  /** Drops the draft and begins again. */
  startAgain: () => void;
}

const NONE = { key: "", questions: [] as readonly string[] };

/** A form that records one event: its values, their validation, questions to confirm, and the draft kept on the device. */
export function useEntryForm<D extends FieldValues, T extends EventType>({
  type,
  first,
  read,
  ask,
  keep,
  onEntered,
}: {
  type: T;
  first: D;
  read: (values: D) => Entry<EventData[T]>;
  /** What is unusual about the data, in sentences. Confirmed by submitting the same data again. */
  ask?: (data: EventData[T]) => readonly string[];
  /** Name of the draft on this device; without one nothing is kept. */
  keep?: string;
  /** `despite`: the questions that were confirmed. */
  onEntered: (data: EventData[T], despite: readonly string[]) => void;
}): EntryForm<D, EventData[T]> {
  const form = useFormLibrary().useForm<D, unknown, EventData[T]>({
    defaultValues: first as DefaultValues<D>,
    resolver: eventResolver(type, read),
    shouldFocusError: false,
  });
  const draft = useFormDraft(form, first, keep);
  const [asked, setAsked] = useState(NONE);
  const { subscribe } = form;
  useEffect(() => subscribe({ formState: { values: true }, callback: () => setAsked(NONE) }), [subscribe]);
  const submit = form.handleSubmit((data) => {
    const questions = ask?.(data) ?? [];
    const key = JSON.stringify(data);
    if (questions.length > 0 && asked.key !== key) {
      setAsked({ key, questions });
      return;
    }
    draft.drop();
    form.reset(first);
    onEntered(data, questions);
  });
  return {
    ...form,
    submit: () => void submit(),
    questions: asked.questions,
    fault: firstFault(form.formState.errors),
    restored: draft.restored,
    startAgain: () => {
      draft.drop();
      form.reset(first);
    },
  };
}
