/** Characters that no text of ours holds: control characters besides a new line, its return and a tab, and halves of a character. */
const NOT_PLAIN = /[^\P{Cc}\n\r\t]|\p{Cs}/u;

/** What nearly every text here is: seen to be plain at a glance. */
const ORDINARY_TEXT = /^[ -~]*$/;
const ORDINARY_NAME = /^[!-~](?:[ -~]*[!-~])?$/;
const ORDINARY_MOMENT =
  /^2\d{3}-(?:0[1-9]|1[0-2])-(?:0[1-9]|1\d|2[0-8])T(?:[01]\d|2[0-3]):[0-5]\d:[0-5]\d\.\d{3}Z$/;

/** Whether a text can be kept and read back as it was written, everywhere. */
export function isPlainText(text: string): boolean {
  return ORDINARY_TEXT.test(text) || !NOT_PLAIN.test(text);
}

/** Whether a text is a name: plain, one line, nothing blank around it. A database compares names without the blanks behind them. */
export function isName(text: string): boolean {
  if (ORDINARY_NAME.test(text)) return true;
  return isPlainText(text) && text.trim() === text && !/[\n\r\t]/.test(text);
}

const ISO_UTC = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/;
/** No device kept such a record before; a clock that says so has lost its battery. */
const EARLIEST = "2000-01-01T00:00:00.000Z";

/** Whether a text is a moment that there is, in UTC with milliseconds: there is no 30 February and no 24:00. */
export function isMoment(text: string): boolean {
  if (ORDINARY_MOMENT.test(text)) return true;
  if (!ISO_UTC.test(text) || text < EARLIEST) return false;
  const at = Date.parse(text);
  return !Number.isNaN(at) && new Date(at).toISOString() === text;
}
