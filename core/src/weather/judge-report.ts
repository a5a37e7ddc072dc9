import type { Judgement } from "../judgement/judgement";
import { formatNumber, formatQuantity } from "../units/format";
import {
  ageMin,
  ceilingFt,
  cloudText,
  knownCeiling,
  visibilityText,
  type WeatherReport,
  weatherText,
  windText,
} from "./report";

/** Stations report every half hour or hour: beyond this a newer report is missing. Common practice. */
const FRESH_MIN = 60;
/** Beyond this age a report no longer describes the weather. Common practice. */
const STALE_MIN = 120;
/** Reports are dated a few minutes ahead at some stations. */
const AHEAD_MIN = 10;

const spokenAge = (minutes: number) =>
  minutes < 24 * 60
    ? `${formatQuantity({ value: Math.max(0, minutes), unit: "min" })} old`
    : "from an earlier day";

/** Source and age of a number, shown beside it: "report of QXMP, 25 min old". */
export const provenance = (report: Pick<WeatherReport, "station" | "at">, now: string): string =>
  `report from ${report.station}, ${spokenAge(ageMin(report, now))}`;

/**
 * Why a report does not describe the weather at this field now; undefined if it does. Its values must not be used then.
 * Source: common practice for ages.
 */
export function notForNow(
  report: Pick<WeatherReport, "station" | "at">,
  now: string,
  station?: string,
): string | undefined {
  const age = ageMin(report, now);
  if (age < -AHEAD_MIN) return "The report is dated in the future. Check the day and time.";
  if (age > STALE_MIN) return `The report is ${spokenAge(age)}: too old to use.`;
  if (station && report.station !== station)
    return `The report is from ${report.station}, not from this field (${station}).`;
  return undefined;
}

/**
 * Judges whether a report can be used: this field's station, current, not in the future, fully decoded. One that cannot is "not
 * assessed". Never throws. Source: common practice for ages.
 */
export function judgeReport(report: WeatherReport, now: string, station?: string): Judgement {
  const age = ageMin(report, now);
  const base = {
    id: "weather.report",
    cause: "unknown.report",
    subject: "Weather report",
    scope: "day" as const,
    reading: { value: Math.round(age), unit: "min" as const },
    limit: `at most ${FRESH_MIN} min old, from this field`,
    source: {
      kind: "common practice" as const,
      text: "stations report every half hour or every hour",
      example: false,
    },
  };
  const why = notForNow(report, now, station);
  if (why)
    return {
      ...base,
      grade: "unjudged",
      sentence: `${why} It is not used.`,
      action: "Get the report of now for this field, or use the windsock and altimeter here.",
    };
  if (report.unread.length > 0)
    return {
      ...base,
      grade: "unjudged",
      sentence: `Not understood: ${report.unread.join(" ")}. Read it yourself; it is not used in the calculation.`,
    };
  if (age > FRESH_MIN)
    return {
      ...base,
      grade: "note",
      sentence: `It is ${spokenAge(age)}: a newer report should be available.`,
      action: "Get a new report.",
    };
  return { ...base, grade: "within limits", sentence: `${report.station}, ${spokenAge(age)}.` };
}

/** Report in plain words, one line each. Elements not reported are listed as missing. */
export function reportLines(report: WeatherReport): { what: string; words: string }[] {
  const { wind, visibilityM, weather, celsius, dewPointC, settingHpa } = report;
  const missing = "not reported";
  return [
    { what: "Wind", words: wind ? `${windText(wind)} (true)` : missing },
    { what: "Visibility", words: visibilityM === undefined ? missing : visibilityWords(report) },
    { what: "Cloud", words: cloudWords(report) },
    ...(weather.length > 0 ? [{ what: "Weather", words: weather.map(weatherText).join(", ") }] : []),
    {
      what: "Temperature",
      words:
        celsius === undefined
          ? missing
          : `${formatQuantity({ value: celsius, unit: "°C" })}${dewPointC === undefined ? "" : `, dew point ${formatQuantity({ value: dewPointC, unit: "°C" })}`}`,
    },
    {
      what: "Altimeter setting",
      words:
        settingHpa === undefined
          ? missing
          : `${formatQuantity({ value: settingHpa, unit: "hPa" })} (${formatQuantity({ value: settingHpa / 33.8639, unit: "inHg" })})`,
    },
  ];
}

function visibilityWords({ visibilityM = 0, visibilityIs, leastVisibility }: WeatherReport): string {
  const most = `${visibilityIs === "less" ? "less than " : ""}${visibilityText(visibilityM)}`;
  return leastVisibility && leastVisibility.m < visibilityM
    ? `${most}, ${visibilityText(leastVisibility.m)} to the ${leastVisibility.toward}`
    : most;
}

function cloudWords(report: WeatherReport): string {
  const layers = report.clouds.map(cloudText);
  const hidden = (report.hiddenClouds ?? []).map((kind) =>
    kind === "CB" ? "cumulonimbus at an unknown height" : "towering cumulus at an unknown height",
  );
  const seen = [...layers, ...hidden];
  if (report.cloudUnknown)
    return seen.length > 0 ? [...seen, "not all of it observed"].join("; ") : "not observed";
  if (seen.length > 0) return seen.join("; ");
  const { atLeastFt } = knownCeiling(report);
  if (atLeastFt === 0) return "not reported";
  return Number.isFinite(atLeastFt) ? `none below ${formatNumber(atLeastFt)} ft` : "none";
}

/** A condition suggested by a report, with the reason; never set automatically. */
export interface ProposedCondition {
  condition: "night" | "frost" | "hot" | "rain";
  why: string;
}

/** Temperature from which heat affects engine and wing. Common practice. */
const HOT_C = 30;
/** Night temperature that leaves frost on a cold-soaked wing even above freezing. Common practice. */
const FROST_C = 3;

/** Conditions suggested by today's weather and light. `coldestC`: minimum of the night, if known. */
export function proposedConditions(
  report: Pick<WeatherReport, "celsius" | "dewPointC" | "weather"> | undefined,
  { night, coldestC }: { night?: boolean; coldestC?: number } = {},
): ProposedCondition[] {
  const { celsius, dewPointC, weather = [] } = report ?? {};
  const cold = Math.min(celsius ?? 99, coldestC ?? 99);
  const damp = celsius === undefined || dewPointC === undefined || celsius - dewPointC <= 6;
  const wet = weather.find((group) => /RA|DZ|SN|SG|PL|GR|GS|UP/.test(group) && !group.startsWith("VC"));
  return [
    ...(night ? [{ condition: "night" as const, why: "the flight ends at night" }] : []),
    ...(cold <= FROST_C && damp
      ? [
          {
            condition: "frost" as const,
            why: `${formatQuantity({ value: cold, unit: "°C" })} and damp: check the wings for frost by hand`,
          },
        ]
      : []),
    ...(celsius !== undefined && celsius >= HOT_C
      ? [{ condition: "hot" as const, why: `${formatQuantity({ value: celsius, unit: "°C" })} at the field` }]
      : []),
    ...(wet ? [{ condition: "rain" as const, why: weatherText(wet) }] : []),
  ];
}

/** Spread at which fog may form in light wind. Common practice. */
const FOG_SPREAD_C = 2;
const STILL_KT = 5;

/** Further hints: possible fog, thunderstorm clouds, a low ceiling. */
export function weatherHints(report: WeatherReport): string[] {
  const { celsius, dewPointC, wind, clouds, weather, visibilityM } = report;
  const spread = celsius === undefined || dewPointC === undefined ? undefined : celsius - dewPointC;
  const foggy =
    weather.some((group) => /FG/.test(group)) || (visibilityM !== undefined && visibilityM < 1000);
  const ceiling = ceilingFt(report);
  return [
    ...(spread !== undefined && spread <= FOG_SPREAD_C && !foggy && (wind?.kt ?? 99) <= STILL_KT
      ? [
          `Temperature and dew point are only ${formatQuantity({ value: spread, unit: "°C" })} apart and there is little wind: fog may form.`,
        ]
      : []),
    ...(clouds.some(({ kind }) => kind === "CB") || weather.some((group) => group.includes("TS"))
      ? ["Thunderstorm nearby: expect gusts and wind shifts ahead of it."]
      : []),
    ...(weather.some((group) => /FZ(RA|DZ)/.test(group))
      ? ["Freezing rain or drizzle: clear ice on all surfaces."]
      : []),
    ...(ceiling !== undefined && ceiling < 1000 ? [`Ceiling ${Math.round(ceiling)} ft.`] : []),
  ];
}
