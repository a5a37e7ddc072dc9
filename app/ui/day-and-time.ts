/** The browser's own words; its language data is read when the first such word is written, not before the first page. */
function inWords(options: Intl.DateTimeFormatOptions): (at: string | Date) => string {
  let format: Intl.DateTimeFormat | undefined;
  return (at) => {
    format ??= new Intl.DateTimeFormat("en-GB", options);
    return format.format(new Date(at));
  };
}

const shortDayText = inWords({ day: "numeric", month: "short" });
/** "1 May 2026". */
export const dayText = inWords({ day: "numeric", month: "short", year: "numeric" });
/** "14:35", by the clock of this device. */
export const clockText = inWords({ hour: "2-digit", minute: "2-digit", hourCycle: "h23" });
/** "1 May 14:35". */
export const dayAndClockText = (at: string): string => `${shortDayText(at)} ${clockText(at)}`;
