import { QuantityError } from "../../units/convert";

/**
 * Why something on record cannot be calculated, as a sentence. One bad entry must not hide the rest, so the error becomes part of
 * the result, at its place. Errors that were not written for people get a general sentence.
 */
export function problemOf(error: unknown): string {
  return error instanceof QuantityError ? error.message : "Its entries contradict each other.";
}

/** The result of a calculation, or why there is none. Never throws. */
export function calculated<T>(calculate: () => T): { value: T } | { problem: string } {
  try {
    return { value: calculate() };
  } catch (error) {
    return { problem: problemOf(error) };
  }
}
