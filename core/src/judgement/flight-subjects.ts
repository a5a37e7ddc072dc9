/**
 * Subjects of a flight that can be "not assessed", and that the pilot can knowingly fly without. A judgement that could not be made
 * for want of an input has the cause "unknown." and one of these.
 */
export const FLIGHT_SUBJECTS = [
  "report",
  "wind",
  "visibility",
  "ceiling",
  "forecast",
  "light",
  "loading",
  "distances",
  "accelerate-stop",
  "launch",
  "fuel",
  "papers",
  "pilot",
] as const;
export type FlightSubject = (typeof FLIGHT_SUBJECTS)[number];

/** Usual reasons to fly without an assessment; the pilot can also write one. */
export const WAIVER_REASONS = [
  "I have checked it myself, here at the field.",
  "I have worked it out from the handbook.",
  "It does not matter for this flight.",
] as const;

const PREFIX = "unknown.";

/** Subject of a cause; undefined for any other cause. */
export function subjectOfCause(cause: string | undefined): FlightSubject | undefined {
  if (!cause?.startsWith(PREFIX)) return undefined;
  const name = cause.slice(PREFIX.length);
  return FLIGHT_SUBJECTS.find((subject) => subject === name);
}
