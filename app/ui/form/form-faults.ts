import type { FieldErrors, FieldValues } from "react-hook-form";

/** A fault of a form, in words, at the field where it was entered. */
export interface FormFault {
  /** Field, or field and entry of a record: "date", "readings.hours". */
  at: string;
  words: string;
  /** Set if a form offers something for this fault, such as confirming it. */
  kind?: string | undefined;
}

/** What a form's values make: data, or the faults to correct first. */
export type Entry<T> = { data: T } | { faults: readonly FormFault[] };

/** Faults as the form library keeps them. Only the first dot separates: ids of records may contain dots. */
export function errorsOf<D extends FieldValues>(faults: readonly FormFault[]): FieldErrors<D> {
  const errors: Record<string, Record<string, unknown>> = {};
  for (const { at, words, kind = "refused" } of faults) {
    const error = { type: kind, message: words };
    const dot = at.indexOf(".");
    if (dot < 0) errors[at] ??= error;
    else {
      const name = at.slice(0, dot);
      errors[name] = { [at.slice(dot + 1)]: error, ...errors[name] };
    }
  }
  return errors as FieldErrors<D>;
}

type Found = { message?: unknown } & Record<string, unknown>;

/** Words of the first error, for a summary beside the button. */
export function firstFault(errors: FieldErrors): string | undefined {
  for (const error of Object.values(errors) as (Found | undefined)[]) {
    if (typeof error?.message === "string") return error.message;
    const inner = error && typeof error === "object" ? firstFault(error as FieldErrors) : undefined;
    if (inner !== undefined) return inner;
  }
  return undefined;
}

/** Words at one field, or at one entry of a record. */
export function faultAt(error: unknown, entry?: string): string | undefined {
  const found = (entry === undefined ? error : (error as Found | undefined)?.[entry]) as Found | undefined;
  return typeof found?.message === "string" ? found.message : undefined;
}

/** Trims all texts, and leaves out those that are empty. */
export function trimmed<D extends FieldValues>(values: D): D {
  return Object.fromEntries(
    Object.entries(values)
      .map(([name, value]) => [name, typeof value === "string" ? value.trim() : value])
      .filter(([, value]) => value !== "" && value !== undefined),
  ) as D;
}

/** Faults of required texts that are empty. */
export const missing = <D extends FieldValues>(
  values: D,
  required: { [K in keyof D & string]?: string },
): FormFault[] =>
  Object.entries(required).flatMap(([at, words]) =>
    String(values[at] ?? "").trim() === "" ? [{ at, words: words as string }] : [],
  );
