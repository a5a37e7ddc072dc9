import { type AnyObjectSchema, ValidationError } from "yup";
import { boundsViolation, FILE_BOUNDS } from "../bounds/measure-value";

/** A fault in a file: path and expectation. */
export interface FileFault {
  path: string;
  expected: string;
}

/** Maximum number of reported faults. */
export const MAX_FAULTS = 100;

/**
 * Validates a value strictly against a file's schema; returns at most a hundred faults. Values beyond all limits are not
 * examined.
 */
export function validateFile(schema: AnyObjectSchema, value: unknown): FileFault[] {
  const beyond = boundsViolation(value, FILE_BOUNDS);
  if (beyond) return [{ path: "", expected: beyond }];
  try {
    schema.validateSync(value, { strict: true, abortEarly: false, disableStackTrace: true });
    return [];
  } catch (error) {
    // A rule over several fields met values of the wrong type: not a valid file, and not an error of ours.
    if (!(error instanceof ValidationError))
      return [{ path: "", expected: "values of the types that this file format defines" }];
    const faults = error.inner.length > 0 ? error.inner : [error];
    return atMost(
      faults
        .slice(0, MAX_FAULTS + 1)
        .map((f) => ({ path: f.path ?? "", expected: f.errors[0] ?? f.message })),
      faults.length,
    );
  }
}

/** The first faults, and the number of further ones. */
export function atMost(faults: FileFault[], all = faults.length): FileFault[] {
  if (all <= MAX_FAULTS) return faults;
  return [
    ...faults.slice(0, MAX_FAULTS),
    { path: "", expected: `the remaining ${all - MAX_FAULTS} errors corrected; they are not shown` },
  ];
}
