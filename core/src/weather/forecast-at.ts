import { ceilingFt, type Forecast, type ForecastSpan, type ReportedWind, type Sky } from "./report";

/** What a forecast says of a while: what holds, and what comes at times or perhaps. */
export interface ForecastToday {
  /** The forecast does not reach over the whole while. */
  partly: boolean;
  holds: Sky;
  /** At times, or perhaps: each with its chance. */
  besides: ForecastSpan[];
  /** The worst of what holds in that while. */
  likely: WorstSky;
  /** The worst of all that is expected, what comes at times or perhaps among it. */
  worst: WorstSky;
}

/** The strongest wind, the poorest sight, the lowest ceiling, and every wind and weather that is named. */
export interface WorstSky {
  wind?: ReportedWind;
  winds: ReportedWind[];
  visibilityM?: number;
  ceilingFt?: number;
  weather: string[];
}

const strength = ({ kt, gustKt = 0 }: ReportedWind) => Math.max(kt, gustKt);

/**
 * What a forecast says of the while from one moment to another. A change "from" then on holds from there; one "becoming" may hold from its first hour and does
 * from its last: until then both count. Complexity: O(spans). Source: WMO-No. 306, FM 51 (from memory).
 */
export function forecastAt(forecast: Forecast, from: string, to: string): ForecastToday {
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
    // Before the while it only sets what holds when it begins.
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

/** What holds for sure at a moment: a change that is still turning has not come yet. Complexity: O(spans). Source: as `forecastAt`. */
export function skyAt({ spans }: Pick<Forecast, "spans">, at: string): Sky {
  const moment = Date.parse(at);
  let sky: Sky = { clouds: [], weather: [] };
  for (const span of spans) {
    if (span.kind === "becoming" && Date.parse(span.to) <= moment) sky = merged(sky, span);
    if ((span.kind === "first" || span.kind === "from") && Date.parse(span.from) <= moment) sky = span;
  }
  return sky;
}

/** What a change does not name stays. */
const merged = (before: Sky, change: Sky): Sky => ({
  ...before,
  ...(change.wind && { wind: change.wind }),
  ...(change.visibilityM !== undefined && { visibilityM: change.visibilityM }),
  ...(change.clouds.length > 0 && { clouds: change.clouds }),
  ...(change.weather.length > 0 && { weather: change.weather }),
});

/**
 * The temperature that a forecast's warmest and coldest make likely at a moment, °C: between the two it is taken along a cosine, outside of them it stays. Undefined with
 * fewer than two. Source: common practice; a forecast gives no more.
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
