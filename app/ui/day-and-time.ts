/** Formats through the browser; its locale data is loaded on first use, not before the first page. */
function dateText(options: Intl.DateTimeFormatOptions): (at: string | Date) => string {
  let format: Intl.DateTimeFormat | undefined;
  return (at) => {
    format ??= new Intl.DateTimeFormat("en-GB", options);
    return format.format(new Date(at));
  };
}

const shortDayText = dateText({ day: "numeric", month: "short" });
/** "1 May 2026". */
export const dayText = dateText({ day: "numeric", month: "short", year: "numeric" });
/** "14:35", local time. */
export const clockText = dateText({ hour: "2-digit", minute: "2-digit", hourCycle: "h23" });
/** "1 May 14:35". */
export const dayAndClockText = (at: string): string => `${shortDayText(at)} ${clockText(at)}`;
