import { type Judgement, notAssessed } from "../judgement/judgement";
import { judgeMinima, type MinimaForFlight, strictest, type WhyUnknown } from "../minima/minima";
import { formatNumber } from "../units/format";
import { notForNow } from "../weather/judge-report";
import {
  knownCeiling,
  leastVisibilityM,
  visibilityText,
  type WeatherReport,
  windText,
} from "../weather/report";
import type { Departure } from "./calculate-departure";
import type { DepartureDay } from "./departure-day";

/** The report, if it describes the weather here and now; else why not. */
export interface CurrentWeather {
  report?: WeatherReport;
  why: string;
}

/** The report to judge by: of this field, and not too old. */
export function currentWeather({ report, now, station }: DepartureDay): CurrentWeather {
  if (!report) return { why: "no weather report" };
  const why = notForNow(report, now, station);
  return why ? { why: lowerCase(why.replace(/\.$/, "")) } : { report, why: "" };
}

const lowerCase = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/** A value of today, or why it is unknown. */
type Known = { value: number; words: string } | { why: string };

/**
 * Judges wind, visibility and ceiling: against every limit, or as "not assessed" with the reason, or as known where no limit is set.
 * Never throws. Complexity: as `judgeMinima`. Source: that of each limit.
 */
export function judgeSky(
  day: DepartureDay,
  departure: Departure | undefined,
  weather: CurrentWeather,
): Judgement[] {
  const { conditions, sets, reserveMin } = day;
  const visibility = knownVisibility(weather);
  const ceiling = knownCeilingFor(day, weather);
  const wind = day.input?.wind ?? day.wind;
  const noWind = wind ? undefined : whyNoWind(day, weather);
  const noCross = noWind ?? (departure?.wind ? undefined : "the runway is not chosen");
  const today: MinimaForFlight = {
    ...(wind && { windKt: Math.max(wind.kt, wind.gustKt ?? 0), gustKt: (wind.gustKt ?? wind.kt) - wind.kt }),
    ...(departure?.wind && { crosswindKt: departure.wind.crossKt, tailwindKt: departure.wind.tailKt }),
    ...("value" in ceiling && { ceilingFt: ceiling.value }),
    ...("value" in visibility && { visibilityM: visibility.value }),
    ...(reserveMin !== undefined && { reserveMin }),
    ...(day.light && { night: day.light.today.night }),
    passengers: conditions.includes("passengers"),
  };
  const unknown: WhyUnknown = {
    ...(noWind && { windKt: noWind, gustKt: noWind }),
    ...(noCross && { crosswindKt: noCross, tailwindKt: noCross }),
    ...("why" in ceiling && { ceilingFt: ceiling.why }),
    ...("why" in visibility && { visibilityM: visibility.why }),
    ...(day.powered && reserveMin === undefined && { reserveMin: "the fuel left on landing is not known" }),
  };
  const limits = judgeMinima(sets, today, unknown);
  const limited = (field: string) => limits.some(({ id }) => id === `minima.${field}`);
  return [
    ...limits,
    ...(noCross
      ? [subject("wind", "Wind", { why: noCross })]
      : wind && !limited("windKt") && !limited("crosswindKt")
        ? [subject("wind", "Wind", { value: wind.kt, words: windText(wind) })]
        : []),
    ...(limited("visibilityM") && "value" in visibility
      ? []
      : [subject("visibility", "Visibility", visibility)]),
    ...(limited("ceilingFt") && "value" in ceiling ? [] : [subject("ceiling", "Ceiling", ceiling)]),
  ];
}

const ACTIONS: Record<string, string> = {
  wind: "Read the windsock and choose the runway, or get the report.",
  visibility: "Get the report, or judge it at the field.",
  ceiling: "Get the report, or judge it at the field.",
};

/** A subject without a limit: known, or not assessed. */
function subject(id: string, name: string, known: Known): Judgement {
  if ("why" in known)
    return {
      ...notAssessed(`unknown.${id}`, name, `Not checked: ${known.why}.`),
      cause: `unknown.${id}`,
      explains: true,
      action: ACTIONS[id] as string,
    };
  return {
    id: `weather.${id}`,
    subject: name,
    scope: "day",
    grade: "within limits",
    // A crosswind limit of the aircraft is judged with the windsock's wind.
    sentence: id === "wind" ? `${known.words}.` : `${known.words}. No limit is set.`,
  };
}

function whyNoWind({ reported }: DepartureDay, { report, why }: CurrentWeather): string {
  if (!report) return why === "no weather report" ? "no windsock reading and no weather report" : why;
  if (!report.wind) return "the report has no wind, and there is no windsock reading";
  return reported ? "the wind is not known" : "the magnetic variation here is not known";
}

function knownVisibility({ report, why }: CurrentWeather): Known {
  if (!report) return { why };
  const least = leastVisibilityM(report);
  if (least === undefined) return { why: "no visibility reported" };
  const toward = report.leastVisibility ? ` to the ${report.leastVisibility.toward}` : "";
  // "Less than" a value does not meet a limit of that value.
  return report.visibilityIs === "less"
    ? { value: least - 1, words: `less than ${visibilityText(least)}` }
    : { value: least, words: `${visibilityText(least)}${toward}` };
}

function knownCeilingFor({ sets }: DepartureDay, { report, why }: CurrentWeather): Known {
  if (!report) return { why };
  const { atLeastFt, atMostFt } = knownCeiling(report);
  const limit = strictest(sets, "ceilingFt")?.value ?? 0;
  if (atMostFt < limit) return { value: atMostFt, words: `${formatNumber(atMostFt)} ft or less` };
  if (atLeastFt > 0 && atLeastFt >= limit) {
    if (atLeastFt === atMostFt || limit > 0)
      return {
        value: atLeastFt,
        words: Number.isFinite(atLeastFt) ? `${formatNumber(atLeastFt)} ft` : "no ceiling",
      };
    return { value: atLeastFt, words: `none below ${formatNumber(atLeastFt)} ft` };
  }
  if (atLeastFt > 0 && atLeastFt < limit && atLeastFt !== atMostFt)
    return { why: `only cloud below ${formatNumber(atLeastFt)} ft is reported` };
  if (atLeastFt === atMostFt) return { value: atLeastFt, words: `${formatNumber(atLeastFt)} ft` };
  return {
    why: report.cloudUnknown ? "cloud was not observed, or could not be read" : "no ceiling reported",
  };
}
