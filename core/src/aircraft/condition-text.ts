import type { Condition } from "./aircraft-type";

const TEXT: Partial<Record<Condition, string>> = {
  "solo student": "student solo",
  "long range": "long flight",
};

/** A condition as a person reads it, in lower case. Unknown conditions are returned as they are. */
export const conditionText = (condition: string): string => TEXT[condition as Condition] ?? condition;
