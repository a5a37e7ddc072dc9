import { type Judgement, notAssessed } from "../judgement/judgement";
import { formatQuantity } from "../units/format";
import {
  ageMin,
  ceilingFt,
  cloudText,
  visibilityText,
  type WeatherReport,
  weatherText,
  windText,
} from "./report";

/** Stations report every half hour or hour: beyond this a newer report is missing. Common practice. */
const FRESH_MIN = 75;
/** Beyond this age a report no longer describes the weather. Common practice. */
const STALE_MIN = 180;

const spokenAge = (minutes: number) =>
  minutes < 24 * 60
    ? `${formatQuantity({ value: Math.max(0, minutes), unit: "min" })} old`
    : "from an earlier day";

/** Source and age of a number, shown beside it: "report of QXMP, 25 min old". */
export const provenance = (report: Pick<WeatherReport, "station" | "at">, now: string): string =>
  `report from ${report.station}, ${spokenAge(ageMin(report, now))}`;

/**
 * Judges whether a report can be used: this field's station, current, not in the future, fully decoded. Never throws.
 * Source: common practice for ages.
 */
export function judgeReport(report: WeatherReport, now: string, station?: string): Judgement {
  const age = ageMin(report, now);
  const base = {
    id: "weather.report",
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
  if (age < -10)
    return {
      ...base,
      grade: "ask",
      sentence: "The report is dated in the future. Check the day and time.",
      action: "Get a new report.",
    };
  if (age > STALE_MIN)
    return {
      ...base,
      grade: "ask",
      sentence: `It is ${spokenAge(age)}: too old to use.`,
      action: "Get a new report.",
    };
  if (station && report.station !== station)
    return {
      ...base,
      grade: "ask",
      sentence: `It is from ${report.station}, not from this field (${station}).`,
      action: "Get the report for this field, or use the windsock and altimeter here.",
    };
  if (report.unread.length > 0)
    return {
      ...base,
      grade: "note",
      sentence: `Not decoded: ${report.unread.join(" ")}. Check it yourself; it is not used in the calculation.`,
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
  const { wind, visibilityM, clouds, weather, celsius, dewPointC, settingHpa } = report;
  const missing = "not reported";
  return [
    { what: "Wind", words: wind ? `${windText(wind)} (true)` : missing },
    { what: "Visibility", words: visibilityM === undefined ? missing : visibilityText(visibilityM) },
    {
      what: "Cloud",
      words:
        clouds.length > 0
          ? clouds.map(cloudText).join("; ")
          : visibilityM === undefined && !/\b(SKC|CLR|NSC|NCD|CAVOK)\b/.test(report.raw)
            ? missing
            : "none significant",
    },
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

/** Judgement if there is no report. */
export const noReport = (): Judgement =>
  notAssessed("weather.report", "Weather report", "No report: use the wind and weather you observe.");
