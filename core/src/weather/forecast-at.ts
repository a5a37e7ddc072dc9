import { ceilingFt, type Forecast, type ForecastSpan, type ReportedWind, type Sky } from "./report";

/** Forecast for a period: prevailing conditions, and temporary or probable ones. */
export interface ForecastForFlight {
  /** The forecast does not cover the whole period. */
  partly: boolean;
  holds: Sky;
  /** Temporary or probable conditions, with their probability. */
  besides: ForecastSpan[];
  /** Worst prevailing conditions. */
  likely: WorstSky;
  /** Worst of all forecast conditions, temporary and probable included. */
  worst: WorstSky;
}

/** Strongest wind, lowest visibility and ceiling, and all winds and weather mentioned. */
export interface WorstSky {
  wind?: ReportedWind;
  winds: ReportedWind[];
  visibilityM?: number;
  ceilingFt?: number;
  weather: string[];
}

const strength = ({ kt, gustKt = 0 }: ReportedWind) => Math.max(kt, gustKt);

/**
 * Evaluates a forecast for a period. A "from" change applies from its time; a "becoming" change may apply from its first hour and
 * does from its last: in between both count. Complexity: O(spans). Source: WMO-No. 306, FM 51 (from memory).
 */
export function forecastAt(forecast: Forecast, from: string, to: string): ForecastForFlight {
  const [begins, ends] = [Date.parse(from), Date.parse(to)];
  let holds: Sky = { clouds: [], weather: [] };
  const over = (one: ForecastSpan) => Date.parse(one.from) <= ends && Date.parse(one.to) >= begins;
  const lasting: Sky[] = [];
  const besides: ForecastSpan[] = [];
  for (const span of forecast.spans) {
    if (span.kind === "at times" || span.kind === "chance") {
      if (over(span)) besides.push(span);
      continue;
    }
    if (Date.parse(span.from) > ends) continue;
    // Before the period it only sets the initial conditions.
    const before = holds;
    holds = span.kind === "first" || span.kind === "from" ? span : merged(holds, span);
    const sure = span.kind === "becoming" ? Date.parse(span.to) : Date.parse(span.from);
    if (sure > begins) lasting.push(before);
  }
  lasting.push(holds);
  return {
    partly: begins < Date.parse(forecast.from) || ends > Date.parse(forecast.to),
    holds: {
      ...(holds.wind && { wind: holds.wind }),
      ...(holds.visibilityM !== undefined && { visibilityM: holds.visibilityM }),
      clouds: holds.clouds,
      weather: holds.weather,
    },
    besides,
    likely: worstOf(lasting),
    worst: worstOf([...lasting, ...besides]),
  };
}

function worstOf(skies: readonly Sky[]): WorstSky {
  const winds = skies.flatMap(({ wind }) => wind ?? []);
  const seen = skies.flatMap(({ visibilityM }) => visibilityM ?? []);
  const ceilings = skies.flatMap((sky) => ceilingFt(sky) ?? []);
  return {
    winds,
    weather: [...new Set(skies.flatMap(({ weather }) => weather))],
    ...(winds.length > 0 && { wind: winds.reduce((a, b) => (strength(b) > strength(a) ? b : a)) }),
    ...(seen.length > 0 && { visibilityM: Math.min(...seen) }),
    ...(ceilings.length > 0 && { ceilingFt: Math.min(...ceilings) }),
  };
}

/** Conditions certain at a time: a change in progress does not count yet. Complexity: O(spans). Source: as `forecastAt`. */
export function skyAt({ spans }: Pick<Forecast, "spans">, at: string): Sky {
  const moment = Date.parse(at);
  let sky: Sky = { clouds: [], weather: [] };
  for (const span of spans) {
    if (span.kind === "becoming" && Date.parse(span.to) <= moment) sky = merged(sky, span);
    if ((span.kind === "first" || span.kind === "from") && Date.parse(span.from) <= moment) sky = span;
  }
  return sky;
}

/** Elements a change does not mention stay. */
const merged = (before: Sky, change: Sky): Sky => ({
  ...before,
  ...(change.wind && { wind: change.wind }),
  ...(change.visibilityM !== undefined && { visibilityM: change.visibilityM }),
  ...(change.clouds.length > 0 && { clouds: change.clouds }),
  ...(change.weather.length > 0 && { weather: change.weather }),
});

/**
 * Temperature likely at a time, °C, from the forecast's maximum and minimum: interpolated along a cosine between them, constant
 * outside. Undefined with fewer than two. Source: common practice.
 */
export function temperatureAt(
  { temperatures }: Pick<Forecast, "temperatures">,
  at: string,
): number | undefined {
  const points = [...temperatures].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const [a, b] = [points[0], points.at(-1)];
  if (!a || !b || a === b) return undefined;
  const part = (Date.parse(at) - Date.parse(a.at)) / (Date.parse(b.at) - Date.parse(a.at));
  const x = Math.min(1, Math.max(0, part));
  return a.celsius + ((b.celsius - a.celsius) * (1 - Math.cos(Math.PI * x))) / 2;
}
