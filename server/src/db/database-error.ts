/** Codes of a database error and its causes. */
function codesOf(error: unknown): { code: string; sqlState: string }[] {
  const codes: { code: string; sqlState: string }[] = [];
  let one = error as { code?: unknown; sqlState?: unknown; cause?: unknown } | undefined;
  for (let depth = 0; one && depth < 5; depth++) {
    codes.push({ code: String(one.code ?? ""), sqlState: String(one.sqlState ?? "") });
    one = one.cause as typeof one;
  }
  return codes;
}

const has = (error: unknown, names: readonly string[]) =>
  codesOf(error).some(({ code }) => names.includes(code));

/** Conflict between transactions: retrying helps. */
export const isBusy = (error: unknown): boolean =>
  has(error, ["ER_LOCK_DEADLOCK", "ER_LOCK_WAIT_TIMEOUT", "ER_CHECKREAD"]);

/** The database rejects a value: retrying does not help. */
export const isBadData = (error: unknown): boolean =>
  has(error, [
    "ER_DATA_TOO_LONG",
    "ER_TRUNCATED_WRONG_VALUE",
    "ER_WARN_DATA_OUT_OF_RANGE",
    "ER_CONSTRAINT_FAILED",
  ]) || codesOf(error).some(({ sqlState }) => sqlState.startsWith("22"));

/** The database is unreachable, not responding, or out of disk or memory. */
export const isGone = (error: unknown): boolean =>
  has(error, [
    "ECONNREFUSED",
    "ECONNRESET",
    "PROTOCOL_CONNECTION_LOST",
    "PROTOCOL_SEQUENCE_TIMEOUT",
    "ETIMEDOUT",
    "ER_SERVER_SHUTDOWN",
    "ER_DISK_FULL",
    "ER_RECORD_FILE_FULL",
    "ER_OUT_OF_RESOURCES",
    "ER_OUTOFMEMORY",
    "ER_OUT_OF_SORTMEMORY",
    "ER_ENGINE_OUT_OF_MEMORY",
    "ER_CANT_CREATE_THREAD",
    "ER_ERROR_ON_WRITE",
    "ER_CON_COUNT_ERROR",
    "EPIPE",
    "ENOENT",
  ]);

/** The error comes from the database or the connection to it, not from our own code. */
export const isOfDatabase = (error: unknown): boolean =>
  codesOf(error).some(({ code, sqlState }) => /^[A-Z]/.test(code) || sqlState.length === 5) || isGone(error);

/** First code of an error, for logging transient ones. */
export const codeOf = (error: unknown): string =>
  codesOf(error).find(({ code }) => code !== "" && code !== "undefined")?.code ?? "";
