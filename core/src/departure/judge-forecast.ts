import { spokenDate } from "../airworthiness/calendar/local-date";
import { type Judgement, notAssessed, type Source } from "../judgement/judgement";
import {
  judgeMinima,
  type MinimaField,
  type MinimaForFlight,
  type MinimaSet,
  strictest,
} from "../minima/minima";
import { magneticWind } from "../runways/compare-runways";
import { worstWind } from "../runways/worst-wind";
import { forecastAt, skyAt, type WorstSky } from "../weather/forecast-at";
import { HAZARDS } from "../weather/present-hazards";
import {
  ceilingFt,
  cloudText,
  type Forecast,
  knownCeiling,
  type Sky,
  visibilityText,
  weatherText,
  windText,
} from "../weather/report";

/** A flight to compare with a forecast. */
export interface ForecastDay {
  forecast: Forecast;
  /** From take-off to landing. */
  from: string;
  to: string;
  /** Weather station of the field. */
  station?: string;
  sets: readonly MinimaSet[];
  /** Planned runway, magnetic, and variation, east positive: crosswind needs both. */
  headingDeg?: number;
  variationDeg?: number;
}

const SOURCE: Source = {
  kind: "common practice",
  text: "forecast for the whole flight, temporary conditions included",
  example: false,
};

/**
 * Compares a forecast over the flight with the strictest limits: prevailing conditions are "ask first", temporary or probable
 * ones are "watch"; nothing is a stop, because it has not happened yet. A forecast for another field, or ending before the
 * flight, is reported. Never throws. Complexity: O(spans · sets).
 * Source: that of each limit; common practice for weather.
 */
export function judgeForecast(day: ForecastDay): Judgement[] {
  const { forecast, from, to, station, sets } = day;
  const base = { id: "forecast", subject: "Forecast", scope: "day" as const, source: SOURCE };
  if (station && forecast.station !== station)
    return [
      {
        ...base,
        grade: "ask",
        sentence: `The forecast is for ${forecast.station}, not for this field (${station}).`,
        action: "Get the forecast for this field.",
      },
    ];
  const { partly, likely, worst, unread, holds } = forecastAt(forecast, from, to);
  const silent = notForecast(holds, sets, unread !== undefined);
  const valid = `${dayAndClock(forecast.from)} to ${dayAndClock(forecast.to)} UTC`;
  if (Date.parse(to) < Date.parse(forecast.from) || Date.parse(from) > Date.parse(forecast.to))
    return [
      {
        ...base,
        grade: "note",
        sentence: `The forecast is valid ${valid} and does not cover this flight.`,
        action: "Get a new forecast.",
      },
    ];
  const sure = against(day, likely, "ask");
  const perhaps = against(day, worst, "watch").filter(({ id }) => !sure.some((one) => one.id === id));
  const found = [...sure, ...perhaps];
  return [
    ...found,
    ...(unread
      ? [
          {
            ...notAssessed(
              "forecast.unread",
              "Forecast",
              `Cannot be checked from ${clock(unread.from)} UTC: ${unread.groups.length > 0 ? `${unread.groups.join(" ")} not understood` : "cloud is not forecast"}.`,
            ),
            cause: "unknown.forecast",
            source: SOURCE,
            action: "Read it yourself, or get it again.",
          },
        ]
      : []),
    ...(silent.length > 0
      ? [
          {
            ...notAssessed(
              "forecast.missing",
              "Forecast",
              `Limits not checked: the forecast has no ${silent.join(" and no ")}.`,
            ),
            cause: "unknown.forecast",
            source: SOURCE,
          },
        ]
      : []),
    ...(partly
      ? [
          {
            ...base,
            id: "forecast.ends",
            grade: "note" as const,
            sentence: `The forecast is valid ${valid} and covers only part of this flight.`,
          },
        ]
      : []),
    ...(found.length === 0 && !unread && !partly && silent.length === 0
      ? [
          {
            ...base,
            grade: "within limits" as const,
            sentence: `From ${clock(from)} to ${clock(to)} UTC the forecast is within all limits.`,
          },
        ]
      : []),
  ];
}

/** Elements that have a limit and are not forecast. */
function notForecast(holds: Sky, sets: readonly MinimaSet[], unread: boolean): string[] {
  const limited = (...fields: MinimaField[]) => fields.some((field) => strictest(sets, field) !== undefined);
  const { atLeastFt, atMostFt } = knownCeiling(holds);
  const cloudless = atLeastFt === 0 && atMostFt === Number.POSITIVE_INFINITY;
  return [
    ...(!holds.wind && limited("windKt", "gustKt", "crosswindKt", "tailwindKt") ? ["wind"] : []),
    ...(holds.visibilityM === undefined && limited("visibilityM") ? ["visibility"] : []),
    // A cloud group that could not be read is named already.
    ...(cloudless && !unread && limited("ceilingFt") ? ["cloud"] : []),
  ];
}

function against(
  { from, to, sets, headingDeg, variationDeg }: ForecastDay,
  sky: WorstSky,
  grade: "ask" | "watch",
): Judgement[] {
  const when = `between ${clock(from)} and ${clock(to)} UTC`;
  const often = grade === "ask" ? "" : " at times";
  const limits = judgeMinima(sets, todayBy(sky, headingDeg, variationDeg))
    .filter((one) => one.grade !== "within limits")
    .map((one) => ({
      ...one,
      id: one.id.replace(/^minima\./, "forecast."),
      cause: one.id.replace(/^minima\./, "forecast."),
      subject: `${one.subject} (forecast)`,
      grade,
      sentence: `Forecast${often} ${when}: ${one.sentence}`,
      action: "Go earlier or later, or plan an alternate.",
    }));
  const found = (id: string, name: string): Judgement => ({
    id: `forecast.${id}`,
    cause: `forecast.${id}`,
    subject: `${name} (forecast)`,
    scope: "day",
    grade,
    source: SOURCE,
    sentence: `${name} forecast${often} ${when}.`,
    action: "Go earlier or later, or plan an alternate.",
  });
  const weather = HAZARDS.filter(({ groups }) => sky.weather.some((group) => groups.test(group))).map(
    ({ id, name }) => found(id, name),
  );
  return [...limits, ...weather, ...(sky.windShear.length > 0 ? [found("shear", "Wind shear")] : [])];
}

function todayBy(
  { wind, winds, visibilityM, ceilingFt: ceiling }: WorstSky,
  headingDeg: number | undefined,
  variationDeg: number | undefined,
): MinimaForFlight {
  const across =
    headingDeg === undefined || variationDeg === undefined
      ? undefined
      : winds.map((one) => worstWind(headingDeg, magneticWind(one, variationDeg)).crossKt);
  const gusts = winds.flatMap(({ kt, gustKt }) => (gustKt === undefined ? [] : [gustKt - kt]));
  return {
    ...(wind && { windKt: Math.max(wind.kt, wind.gustKt ?? 0) }),
    ...(gusts.length > 0 && { gustKt: Math.max(...gusts) }),
    ...(across && across.length > 0 && { crosswindKt: Math.max(...across) }),
    ...(visibilityM !== undefined && { visibilityM }),
    ...(ceiling !== undefined && { ceilingFt: ceiling }),
  };
}

/** Forecast in plain words with hours in UTC, one line each: the initial conditions, then each change. */
export function forecastLines(
  forecast: Forecast,
  from: string,
  to: string,
): { what: string; words: string }[] {
  const { besides } = forecastAt(forecast, from, to);
  const begins = from < forecast.from ? forecast.from : from;
  return [
    { what: `At ${clock(begins)}`, words: skyText(skyAt(forecast, begins)) },
    ...forecast.spans
      .filter(
        (span) =>
          Date.parse(span.from) <= Date.parse(to) &&
          (span.kind === "becoming"
            ? Date.parse(span.to) > Date.parse(from)
            : span.kind === "from" && Date.parse(span.from) > Date.parse(from)),
      )
      .map((span) => ({
        what: span.kind === "from" ? `From ${clock(span.from)}` : `Becoming, ${hours(span)}`,
        words: skyText(span),
      })),
    ...besides.map((span) => ({
      what:
        span.percent === undefined
          ? `At times, ${hours(span)}`
          : `Probability ${span.percent} %, ${hours(span)}`,
      words: skyText(span),
    })),
  ];
}

function skyText({ wind, visibilityM, clouds, weather, cloudUnknown }: Sky): string {
  const ceiling = ceilingFt({ clouds });
  const layers =
    ceiling === undefined ? clouds : clouds.filter(({ baseFt, kind }) => baseFt <= ceiling || kind);
  const all = [
    ...(wind ? [windText(wind)] : []),
    ...(visibilityM !== undefined ? [visibilityText(visibilityM)] : []),
    ...weather.map(weatherText),
    ...layers.map(cloudText),
    ...(cloudUnknown ? ["cloud not known"] : []),
  ];
  return all.length > 0 ? all.join("; ") : "nothing significant";
}

const clock = (at: string): string => at.slice(11, 16);

const dayAndClock = (at: string): string => `${spokenDate(at.slice(0, 10))} ${clock(at)}`;

const hours = ({ from, to }: { from: string; to: string }): string => `${clock(from)} to ${clock(to)}`;
