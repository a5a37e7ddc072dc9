const DAY = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });
const SHORT_DAY = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });
const CLOCK = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", hourCycle: "h23" });

/** "1 May 2026": the browser's own words, which cost the first page nothing. */
export const dayText = (at: string | Date): string => DAY.format(new Date(at));
/** "14:35", by the clock of this device. */
export const clockText = (at: string | Date): string => CLOCK.format(new Date(at));
/** "1 May 14:35". */
export const dayAndClockText = (at: string): string => `${SHORT_DAY.format(new Date(at))} ${clockText(at)}`;
