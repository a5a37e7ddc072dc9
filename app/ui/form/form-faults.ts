import type { FieldErrors, FieldValues } from "react-hook-form";

/** A fault of a form, in words, at the field where it was entered. */
export interface FormFault {
  /** Field, field and entry of a record, or field of a row: "date", "readings.hours", "items[2].title". */
  at: string;
  words: string;
  /** Set if a form offers something for this fault, such as confirming it. */
  kind?: string | undefined;
}

/** Result of reading a form: its data, or the faults to correct first. */
export type Entry<T> = { data: T } | { faults: readonly FormFault[] };

interface FieldFault {
  type: string;
  message?: string;
  /** Faults of a record's entries. Only the first dot of a path separates: ids may contain dots. */
  entries?: Record<string, FieldFault>;
}

/** Faults as the form library keeps them, the first of each field. */
export function errorsOf<D extends FieldValues>(faults: readonly FormFault[]): FieldErrors<D> {
  const errors: Record<string, FieldFault> = {};
  for (const { at, words, kind = "refused" } of faults) {
    const error = { type: kind, message: words };
    const [, list, row, cell] = /^(\w+)\[(\d+)\]\.(\w+)$/.exec(at) ?? [];
    if (list !== undefined && row !== undefined && cell !== undefined) {
      const rows = (errors[list] ?? {}) as unknown as Record<string, Record<string, FieldFault>>;
      errors[list] = { ...rows, [row]: { [cell]: error, ...rows[row] } } as unknown as FieldFault;
      continue;
    }
    const dot = at.indexOf(".");
    if (dot < 0) errors[at] ??= error;
    else {
      const name = at.slice(0, dot);
      errors[name] = { type: "entries", entries: { [at.slice(dot + 1)]: error, ...errors[name]?.entries } };
    }
  }
  return errors as FieldErrors<D>;
}

/** Words of the first error, for a summary beside the button. */
export function firstFault(errors: object): string | undefined {
  for (const error of Object.values(errors) as FieldFault[]) {
    const words = error.message ?? firstFault(error.entries ?? (error.type === undefined ? error : {}));
    if (words !== undefined) return words;
  }
  return undefined;
}

/** Words at one field, or at one entry of a record. */
export function faultAt(error: object | undefined, entry?: string): string | undefined {
  const fault = error as FieldFault | undefined;
  return entry === undefined ? fault?.message : fault?.entries?.[entry]?.message;
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
