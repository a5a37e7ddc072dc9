import {
  ceilingFt,
  type Forecast,
  type ForecastSpan,
  leastVisibilityM,
  type ReportedWind,
  type Sky,
} from "./report";

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
  /** Groups that could not be read in parts that matter, and the time from which they do. */
  unread?: { from: string; groups: string[] };
}

/** Strongest wind, lowest visibility and ceiling, all winds and weather mentioned, and what could not be read. */
export interface WorstSky {
  wind?: ReportedWind;
  winds: ReportedWind[];
  visibilityM?: number;
  ceilingFt?: number;
  weather: string[];
  windShear: string[];
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
  const unread = unreadOver(forecast, from, to);
  return {
    ...(unread && { unread }),
    partly: begins < Date.parse(forecast.from) || ends > Date.parse(forecast.to),
    holds: {
      ...(holds.wind && { wind: holds.wind }),
      ...(holds.visibilityM !== undefined && { visibilityM: holds.visibilityM }),
      clouds: holds.clouds,
      ...(holds.clear && { clear: holds.clear }),
      weather: holds.weather,
    },
    besides,
    likely: worstOf(lasting),
    worst: worstOf([...lasting, ...besides]),
  };
}

/** Unread groups of all parts that begin before the end of the flight and are not over, or replaced, before it starts. */
function unreadOver(forecast: Forecast, from: string, to: string): ForecastForFlight["unread"] {
  const [begins, ends] = [Date.parse(from), Date.parse(to)];
  // Everything before the last complete change before the flight is replaced by it.
  const replaced = forecast.spans.findLastIndex(
    ({ kind, from: since }) => kind === "from" && Date.parse(since) <= begins,
  );
  const parts = forecast.spans.filter(({ kind, from: since, to: until }, i) => {
    if (Date.parse(since) > ends || i < replaced) return false;
    return kind === "at times" || kind === "chance" ? Date.parse(until) >= begins : true;
  });
  const bad = parts.filter(({ unread = [], cloudUnknown }) => unread.length > 0 || cloudUnknown);
  const groups = [...new Set(bad.flatMap(({ unread = [] }) => unread))];
  // Forecasts recorded by earlier versions do not say in which part a group stood.
  const known = new Set(forecast.spans.flatMap(({ unread = [] }) => unread));
  const anywhere = forecast.unread.filter((group) => !known.has(group));
  if (bad.length === 0 && anywhere.length === 0) return undefined;
  const since = Math.min(
    ...(anywhere.length > 0 ? [begins] : []),
    ...bad.map((span) => Math.max(begins, Date.parse(span.from))),
  );
  return { from: new Date(since).toISOString(), groups: [...groups, ...anywhere] };
}

function worstOf(skies: readonly Sky[]): WorstSky {
  const winds = skies.flatMap(({ wind }) => wind ?? []);
  const seen = skies.flatMap((sky) => leastVisibilityM(sky) ?? []);
  const ceilings = skies.flatMap((sky) => ceilingFt(sky) ?? []);
  return {
    winds,
    weather: [...new Set(skies.flatMap(({ weather }) => weather))],
    windShear: [
      ...new Set(skies.flatMap((sky) => ("windShear" in sky ? ((sky as ForecastSpan).windShear ?? []) : []))),
    ],
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

/** Elements a change does not mention stay; "no significant weather", CAVOK and a clear sky end what was there. */
function merged(before: Sky, change: Sky): Sky {
  const { visibilityIs: _, leastVisibility: __, ...kept } = before;
  const { clear: ___, cloudUnknown: ____, hiddenClouds: _____, ...withoutCloud } = kept;
  const sees = change.visibilityM !== undefined;
  const clouded = change.clouds.length > 0 || change.clear !== undefined || change.cloudUnknown === true;
  return {
    ...(clouded ? withoutCloud : kept),
    ...(change.wind && { wind: change.wind }),
    ...visibilityPart(sees ? change : before),
    ...(clouded && {
      clouds: change.clouds,
      ...(change.clear && { clear: change.clear }),
      ...(change.cloudUnknown && { cloudUnknown: true as const }),
      ...(change.hiddenClouds && { hiddenClouds: change.hiddenClouds }),
    }),
    weather: change.weather.length > 0 ? change.weather : change.noWeather ? [] : before.weather,
  };
}

const visibilityPart = ({ visibilityM, visibilityIs, leastVisibility }: Sky) => ({
  ...(visibilityM !== undefined && { visibilityM }),
  ...(visibilityIs && { visibilityIs }),
  ...(leastVisibility && { leastVisibility }),
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
