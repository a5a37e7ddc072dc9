import { type AnyObjectSchema, ValidationError } from "yup";
import { boundsViolation, FILE_BOUNDS } from "../bounds/measure-value";

/** One fault of a file: where, and what was expected there. */
export interface FileFault {
  path: string;
  expected: string;
}

/** So many faults are told; a file with more is another file. */
export const MOST_FAULTS = 100;

/** Checks a value against a file's schema, strictly; the faults that it has, at most a hundred. What is beyond all bounds is not looked at. */
export function validateFile(schema: AnyObjectSchema, value: unknown): FileFault[] {
  const beyond = boundsViolation(value, FILE_BOUNDS);
  if (beyond) return [{ path: "", expected: beyond }];
  try {
    schema.validateSync(value, { strict: true, abortEarly: false, disableStackTrace: true });
    return [];
  } catch (error) {
    // A rule over several fields met something that is not even of their kind: no file of this format, and no error of ours.
    if (!(error instanceof ValidationError))
      return [{ path: "", expected: "values of the types that this file format defines" }];
    const faults = error.inner.length > 0 ? error.inner : [error];
    return atMost(
      faults
        .slice(0, MOST_FAULTS + 1)
        .map((f) => ({ path: f.path ?? "", expected: f.errors[0] ?? f.message })),
      faults.length,
    );
  }
}

/** The first faults, and how many more there are. */
export function atMost(faults: FileFault[], all = faults.length): FileFault[] {
  if (all <= MOST_FAULTS) return faults;
  return [
    ...faults.slice(0, MOST_FAULTS),
    { path: "", expected: `the remaining ${all - MOST_FAULTS} errors corrected; they are not shown` },
  ];
}
