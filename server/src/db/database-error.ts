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

/** Messages of errors that have no code: the connection ended before or while a query was sent. */
const CLOSED = /closed state|pool is closed|connection (is )?(closed|lost)|server has gone away/i;

const messagesOf = (error: unknown): string => {
  const { message, cause } = (error ?? {}) as { message?: unknown; cause?: { message?: unknown } };
  return `${String(message)} ${String(cause?.message)}`;
};

/** The database is unreachable, not responding, or out of disk or memory. */
export const isGone = (error: unknown): boolean =>
  CLOSED.test(messagesOf(error)) ||
  has(error, [
    "ECONNABORTED",
    "EHOSTUNREACH",
    "ENETUNREACH",
    "ENOTFOUND",
    "ER_CONNECTION_KILLED",
    "ER_QUERY_INTERRUPTED",
    "ER_ABORTING_CONNECTION",
    "ER_NEW_ABORTING_CONNECTION",
    "ER_NET_READ_ERROR",
    "ER_NET_ERROR_ON_WRITE",
    // A node of a database cluster that is not ready.
    "ER_UNKNOWN_COM_ERROR",
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
