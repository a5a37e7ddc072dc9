import { type Change, type Draft, newDraft, type ReadGroup } from "./code/group-rule";
import { firstFrom, latest } from "./code/group-time";
import { phrasesOf } from "./code/phrases";
import { readGroups, unreadOf } from "./code/read-groups";
import { type ReportGroups, splitReports } from "./code/split-reports";
import { headerOf, ordered } from "./read-report";
import { type Forecast, type ForecastSpan, ReportError } from "./report";

const DAY = 24 * 3_600_000;
const STATION = /^[A-Z][A-Z0-9]{3}$/;
const TIME = /^\d{6}Z$/;
const PERIOD = /^\d{4}\/\d{4}$/;
const CHANGE = /^(?:FM\d{4,6}|BECMG|TEMPO|INTER|PROB\d\d(?: (?:TEMPO|INTER))?)$/;

/** A decoded forecast, with the meaning of each of its groups in their order. */
export interface ReadForecast {
  forecast: Forecast;
  groups: ReadGroup[];
}

/**
 * Decodes the first TAF of a text. As `readReport`: groups that are doubted or not understood are in `unread`, and in that of their
 * period. Throws ReportError for a text that is not a forecast, and for a cancelled one. Complexity: O(groups).
 * Source: WMO-No. 306, FM 51, and the US form, from memory.
 */
export function readForecast(text: string, now: string): Forecast {
  return readForecastGroups(splitReports(text)[0] ?? [], now).forecast;
}

/** As `readForecast`, for the groups of one forecast, with the meaning of each group. */
export function readForecastGroups(all: ReportGroups, now: string): ReadForecast {
  const validity = all.findIndex((group) => PERIOD.test(group));
  const time = all.findIndex((group) => TIME.test(group));
  const issued = time >= 0 && (validity < 0 || time < validity) ? time : -1;
  const station = all[(issued < 0 ? validity : issued) - 1];
  if (station && STATION.test(station) && all.includes("NIL"))
    throw new ReportError("There is no forecast (NIL).");
  if (validity < 1 || !station || !STATION.test(station))
    throw new ReportError(
      "Station or validity missing. A forecast starts like “TAF ABCD 270500Z 2706/2715”.",
    );
  if (all.includes("CNL")) throw new ReportError("This forecast was cancelled.");
  const hours = all[validity] as string;
  const from = latest(hours.slice(0, 4), now, 2 * DAY);
  const to = firstFrom(hours.slice(5), from);
  if (!to || to <= from) throw new ReportError("The validity ends before it starts. Check the forecast.");
  const issuedAt = issued < 0 ? from : latest((all[issued] as string).slice(0, 6), now);
  const remarks = all.indexOf("RMK", validity);
  const body = phrasesOf(all.slice(validity + 1, remarks < 0 ? all.length : remarks));
  const starts = [0, ...body.flatMap((phrase, i) => (CHANGE.test(phrase) ? [i] : []))];
  const groups: ReadGroup[] = [];
  const spans: ForecastSpan[] = [];
  const temperatures: Forecast["temperatures"] = [];
  starts.forEach((start, i) => {
    const part = body.slice(start, starts[i + 1] ?? body.length);
    if (i > 0 && part.length === 0) return;
    const made = i === 0 ? firstPart(part, from, to) : changePart(part, from, to);
    groups.push(...made.groups);
    spans.push(made.span);
    temperatures.push(...extremesOf(made.draft, from, made.groups));
  });
  return {
    forecast: {
      raw: all.join(" "),
      station,
      issuedAt,
      from,
      to,
      spans,
      temperatures,
      unread: unreadOf(groups),
    },
    groups: [
      ...headerOf(all.slice(0, validity)),
      { text: hours, status: "understood", words: "period of the forecast" },
      ...groups,
      ...(remarks < 0 ? [] : all.slice(remarks)).map(
        (text): ReadGroup => ({ text, status: "understood", words: "remark" }),
      ),
    ],
  };
}

interface Part {
  span: ForecastSpan;
  groups: ReadGroup[];
  draft: Draft;
}

function spanOf(
  elements: readonly string[],
  when: Change & { from: string; to: string },
  before: readonly ReadGroup[],
): Part {
  const draft = newDraft();
  const own = readGroups(elements, draft);
  const groups = [...before, ...own];
  const unread = unreadOf(groups);
  const span: ForecastSpan = {
    ...ordered(draft.sky),
    ...when,
    ...(draft.windShear.length > 0 && { windShear: draft.windShear }),
    ...(unread.length > 0 && { unread }),
  };
  return { span, groups, draft };
}

const firstPart = (elements: readonly string[], from: string, to: string): Part =>
  spanOf(elements, { kind: "first", from, to }, []);

/** A change with its period. One whose period cannot be read counts from the beginning, because it may. */
function changePart([code = "", ...rest]: readonly string[], start: string, end: string): Part {
  if (code.startsWith("FM")) {
    const written = code.slice(2);
    const from = written.length === 6 ? firstFrom(written, start) : undefined;
    const head: ReadGroup = from
      ? { text: code, status: "understood", words: `from ${written.slice(2, 4)}:${written.slice(4)} UTC` }
      : { text: code, status: "doubted", words: "a time that cannot be read" };
    return spanOf(rest, { kind: "from", from: from ?? start, to: end }, [head]);
  }
  const chance = /^PROB(\d\d)/.exec(code);
  const kind = chance ? "chance" : code === "BECMG" ? "becoming" : "at times";
  const head: ReadGroup = {
    text: code,
    status: "understood",
    words: chance ? `chance of ${chance[1]} %${code.includes(" ") ? ", at times" : ""}` : kind,
  };
  const written = PERIOD.test(rest[0] ?? "") ? (rest[0] as string) : undefined;
  const from = written && firstFrom(written.slice(0, 4), start);
  const to = from && firstFrom(written.slice(5), from);
  const period: ReadGroup[] = !written
    ? [{ text: code, status: "doubted", words: "a change without a period" }]
    : [
        from && to
          ? { text: written, status: "understood", words: "its period" }
          : { text: written, status: "doubted", words: "a period that cannot be read" },
      ];
  return spanOf(
    written ? rest.slice(1) : rest,
    {
      kind,
      from: from ?? start,
      to: (from && to) || end,
      ...(chance && { percent: Number(chance[1]) }),
    },
    written ? [head, ...period] : period,
  );
}

/** Forecast temperatures with their times; a time outside the period is doubted. */
function extremesOf({ extremes }: Draft, from: string, groups: ReadGroup[]): Forecast["temperatures"] {
  return extremes.flatMap(({ celsius, time }) => {
    const at = firstFrom(time, from);
    if (at) return [{ at, celsius }];
    groups.forEach((group, i) => {
      if (group.text.startsWith("T") && group.text.includes(`/${time}Z`))
        groups[i] = { ...group, status: "doubted", words: "a time outside the forecast" };
    });
    return [];
  });
}
