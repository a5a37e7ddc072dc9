/** Characters never allowed: control characters except line breaks and tabs, and unpaired surrogates. */
const NOT_PLAIN = /[^\P{Cc}\n\r\t]|\p{Cs}/u;

/** Fast path for ASCII text. */
const ORDINARY_TEXT = /^[ -~]*$/;
const ORDINARY_NAME = /^[!-~](?:[ -~]*[!-~])?$/;
const ORDINARY_MOMENT =
  /^2\d{3}-(?:0[1-9]|1[0-2])-(?:0[1-9]|1\d|2[0-8])T(?:[01]\d|2[0-3]):[0-5]\d:[0-5]\d\.\d{3}Z$/;

/** True for text that survives storage everywhere. */
export function isPlainText(text: string): boolean {
  return ORDINARY_TEXT.test(text) || !NOT_PLAIN.test(text);
}

/** True for a valid name: plain, one line, trimmed. Databases ignore trailing blanks when comparing. */
export function isName(text: string): boolean {
  if (ORDINARY_NAME.test(text)) return true;
  return isPlainText(text) && text.trim() === text && !/[\n\r\t]/.test(text);
}

/** Names that every object already has: as a key they would find something that nobody entered. */
const RESERVED: ReadonlySet<string> = new Set(Object.getOwnPropertyNames(Object.prototype));

/** True for a name that things can be looked up by. */
export function isKey(text: string): boolean {
  return text !== "" && !RESERVED.has(text) && isName(text);
}

const ISO_UTC = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/;
/** Earlier times mean that a clock has lost its battery. */
const EARLIEST = "2000-01-01T00:00:00.000Z";

/** True for a valid UTC time with milliseconds: rejects 30 February and 24:00. */
export function isMoment(text: string): boolean {
  if (ORDINARY_MOMENT.test(text)) return true;
  if (!ISO_UTC.test(text) || text < EARLIEST) return false;
  const at = Date.parse(text);
  return !Number.isNaN(at) && new Date(at).toISOString() === text;
}
