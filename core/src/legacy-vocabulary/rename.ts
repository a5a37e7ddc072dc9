export type Plain = Record<string, unknown>;

export const isRecord = (value: unknown): value is Plain =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Renames fields, keeping their position; a field with the new name is kept as it is. */
export function renamed(from: Plain, names: Readonly<Record<string, string>>): Plain {
  return Object.fromEntries(
    Object.entries(from).map(([key, value]) => {
      const now = Object.hasOwn(names, key) ? names[key] : undefined;
      return [now === undefined || now in from ? key : now, value];
    }),
  );
}

/** Upgrades a cause named after a judgement whose id changed; discrepancies are matched by it. */
export const upgradeCause = (cause: unknown): unknown =>
  typeof cause === "string" ? cause.replace(/^fuel\.witnesses(?=\.|$)/, "fuel.sources") : cause;

/** Upgrades the cause of any record that has one. */
export const withTodaysCause = (one: unknown): unknown =>
  isRecord(one) && upgradeCause(one.cause) !== one.cause ? { ...one, cause: upgradeCause(one.cause) } : one;

const METHODS: Readonly<Record<string, string>> = {
  "read and do": "read-and-do",
  "flow then read": "flow, then check",
};

export const upgradeMethod = (method: unknown): unknown =>
  typeof method === "string" && Object.hasOwn(METHODS, method) ? METHODS[method] : method;
