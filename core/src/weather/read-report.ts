import { type Change, type Draft, newDraft, type ReadGroup } from "./code/group-rule";
import { clockFrom, latest } from "./code/group-time";
import { readGroups, unreadOf } from "./code/read-groups";
import { type ReportGroups, splitReports } from "./code/split-reports";
import { type ForecastSpan, ReportError, type Sky, TREND_MS, type WeatherReport } from "./report";

const STATION = /^[A-Z][A-Z0-9]{3}$/;
const TIME = /^\d{6}Z$/;
const CHANGE = /^(BECMG|TEMPO)$/;

/** A decoded report, with the meaning of each of its groups in their order. */
export interface ReadReport {
  report: WeatherReport;
  groups: ReadGroup[];
}

/**
 * Decodes the first METAR or SPECI of a text. Groups that are doubted or not understood are in `unread` and not used. `now`
 * determines the month of the day: the latest not after tomorrow. Throws ReportError for a text that is not a report: too long,
 * without station or time, with an invalid day, NIL, or empty. Complexity: O(groups). Source: WMO-No. 306, FM 15, and the US form
 * (FMH-1), from memory.
 */
export function readReport(text: string, now: string): WeatherReport {
  return readReportGroups(splitReports(text)[0] ?? [], now).report;
}

/** As `readReport`, for the groups of one report, with the meaning of each group. */
export function readReportGroups(all: ReportGroups, now: string): ReadReport {
  const place = all.findIndex((group) => TIME.test(group));
  const station = all[place - 1];
  if (place < 1 || !station || !STATION.test(station))
    throw new ReportError("Station or time missing. A report starts like “METAR ABCD 270650Z”.");
  const at = latest((all[place] as string).slice(0, 6), now);
  const remarks = all.indexOf("RMK", place);
  const body = all.slice(place + 1, remarks < 0 ? all.length : remarks);
  if (body.includes("NIL")) throw new ReportError("The station reported nothing (NIL).");
  if (body.length === 0) throw new ReportError("Nothing after station and time. Enter the complete report.");
  const change = body.findIndex((group) => CHANGE.test(group));
  const own = change < 0 ? body : body.slice(0, change);
  const draft = newDraft();
  const groups = readGroups(own, draft);
  const settingHpa = agreedSetting(draft, groups);
  const trend = change < 0 ? undefined : readTrend(body.slice(change), at);
  const read = [...groups, ...(trend?.groups ?? [])];
  return {
    report: {
      raw: all.join(" "),
      station,
      at,
      ...ordered(draft.sky),
      ...temperaturesOf(draft),
      ...(settingHpa !== undefined && { settingHpa }),
      ...(draft.automatic && { automatic: true as const }),
      ...(draft.ranges.length > 0 && { ranges: draft.ranges }),
      ...(draft.windShear.length > 0 && { windShear: draft.windShear }),
      ...(draft.closed.length > 0 && { closed: draft.closed }),
      ...(trend && trend.spans.length > 0 && { trend: trend.spans }),
      unread: unreadOf(read),
    },
    groups: [
      ...headerOf(all.slice(0, place + 1)),
      ...read,
      ...remarksOf(remarks < 0 ? [] : all.slice(remarks)),
    ],
  };
}

/** A dew point is of use only with the temperature. */
const temperaturesOf = ({ celsius, dewPointC }: Draft) => ({
  ...(celsius !== undefined && { celsius }),
  ...(celsius !== undefined && dewPointC !== undefined && { dewPointC }),
});

/** The two units round differently, by half of a hectopascal each. */
const SETTINGS_APART_HPA = 1;

/** Altimeter setting; none if the two units disagree. */
function agreedSetting({ settings: { Q, A } }: Draft, groups: ReadGroup[]): number | undefined {
  if (Q === undefined || A === undefined) return Q ?? A;
  if (Math.abs(Q - A) <= SETTINGS_APART_HPA) return Q;
  groups.forEach((group, i) => {
    if (/^[QA]\d{4}$/.test(group.text))
      groups[i] = { ...group, status: "doubted", words: "the two altimeter settings disagree" };
  });
  return undefined;
}

/** Layers from the lowest up. */
export const ordered = (sky: Sky): Sky => ({
  ...sky,
  clouds: [...sky.clouds].sort((a, b) => a.baseFt - b.baseFt),
});

/** Station, time and kind. */
export function headerOf(groups: readonly string[]): ReadGroup[] {
  return groups.map((text) => ({ text, ...headerWords(text) }));
}

const HEADER: Record<string, string> = {
  METAR: "routine report",
  SPECI: "special report",
  TAF: "forecast",
  COR: "corrected",
  AMD: "amended",
  RTD: "delayed",
};

function headerWords(text: string): Pick<ReadGroup, "status" | "words"> {
  if (TIME.test(text))
    return {
      status: "understood",
      words: `day ${Number(text.slice(0, 2))}, ${text.slice(2, 4)}:${text.slice(4, 6)} UTC`,
    };
  const words = HEADER[text] ?? (STATION.test(text) ? "station" : undefined);
  return words ? { status: "understood", words } : { status: "not understood", words: "not understood" };
}

const TENTHS = /^T([01])(\d{3})([01])(\d{3})$/;
const tenths = (sign: string | undefined, value: string | undefined) =>
  `${sign === "1" && Number(value) > 0 ? "−" : ""}${(Number(value) / 10).toFixed(1)} °C`;

/** Remarks are shown as they came; exact temperatures are spelt out. They are not used. */
function remarksOf(groups: readonly string[]): ReadGroup[] {
  return groups.map((text) => {
    const [, sign, warm, dewSign, dew] = TENTHS.exec(text) ?? [];
    return {
      text,
      status: "understood",
      words: warm ? `remark: ${tenths(sign, warm)}, dew point ${tenths(dewSign, dew)}` : "remark",
    };
  });
}

const PERIOD = /^(FM|TL|AT)(\d{4})$/;

/** Changes within two hours after the observation. */
function readTrend(groups: readonly string[], at: string): { spans: ForecastSpan[]; groups: ReadGroup[] } {
  const starts = groups.flatMap((group, i) => (CHANGE.test(group) ? [i] : []));
  const spans: ForecastSpan[] = [];
  const read: ReadGroup[] = [];
  starts.forEach((start, i) => {
    const [code, ...rest] = groups.slice(start, starts[i + 1] ?? groups.length) as [string, ...string[]];
    const kind: Change["kind"] = code === "TEMPO" ? "at times" : "becoming";
    read.push({ text: code, status: "understood", words: kind });
    let from = at;
    let to = new Date(Date.parse(at) + TREND_MS).toISOString();
    const elements = rest.filter((group) => {
      const [, which, clock] = PERIOD.exec(group) ?? [];
      if (!which || !clock) return true;
      const time = clockFrom(clock, at);
      if (!time) {
        read.push({ text: group, status: "doubted", words: "a time that does not exist" });
        return false;
      }
      if (which !== "TL") from = time;
      if (which !== "FM") to = time;
      const word = which === "FM" ? "from" : which === "TL" ? "until" : "at";
      read.push({
        text: group,
        status: "understood",
        words: `${word} ${clock.slice(0, 2)}:${clock.slice(2)} UTC`,
      });
      return false;
    });
    const draft = newDraft();
    const own = readGroups(elements, draft);
    read.push(...own);
    const unread = unreadOf(own);
    spans.push({
      ...ordered(draft.sky),
      kind,
      from,
      to: Date.parse(to) < Date.parse(from) ? from : to,
      ...(draft.windShear.length > 0 && { windShear: draft.windShear }),
      ...(unread.length > 0 && { unread }),
    });
  });
  return { spans, groups: read };
}
