export type Plain = Record<string, unknown>;

export const isRecord = (value: unknown): value is Plain =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** The same with other names for some of its fields, each in its place; a field that has the new name already stays as it is. */
export function renamed(from: Plain, names: Readonly<Record<string, string>>): Plain {
  return Object.fromEntries(
    Object.entries(from).map(([key, value]) => {
      const now = Object.hasOwn(names, key) ? names[key] : undefined;
      return [now === undefined || now in from ? key : now, value];
    }),
  );
}

/** A cause that was named after a judgement whose id changed: by it a discrepancy is known again. */
export const causeInTodaysWords = (cause: unknown): unknown =>
  typeof cause === "string" ? cause.replace(/^fuel\.witnesses(?=\.|$)/, "fuel.sources") : cause;

/** Whatever carries a cause, with it in today's words. */
export const withTodaysCause = (one: unknown): unknown =>
  isRecord(one) && causeInTodaysWords(one.cause) !== one.cause
    ? { ...one, cause: causeInTodaysWords(one.cause) }
    : one;

const METHODS: Readonly<Record<string, string>> = {
  "read and do": "read-and-do",
  "flow then read": "flow, then check",
};

export const methodInTodaysWords = (method: unknown): unknown =>
  typeof method === "string" && Object.hasOwn(METHODS, method) ? METHODS[method] : method;
