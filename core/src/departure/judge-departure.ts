import { type Judgement, notAssessed } from "../judgement/judgement";
import { windsockDisagrees } from "../runways/compare-runways";
import { formatQuantity } from "../units/format";
import { judgeReport } from "../weather/judge-report";
import { nightBeginsText } from "../weather/night-begins";
import { presentHazards } from "../weather/present-hazards";
import { type ForecastSpan, type Sky, TREND_MS, type WeatherReport } from "../weather/report";
import { CLEAR_FT, calculateDeparture, type Departure } from "./calculate-departure";
import type { DepartureDay } from "./departure-day";
import { distanceText, remedyText } from "./departure-text";
import { judgeForecast } from "./judge-forecast";
import { judgePilot } from "./judge-pilot";
import { type CurrentWeather, currentWeather, judgeSky } from "./judge-sky";
import { fits, type Remedy, remedies } from "./remedies";

export interface JudgedDeparture {
  departure?: Departure;
  judgements: Judgement[];
  remedies: Remedy[];
}

/**
 * Judges a departure: report, weather of now, daylight, limits, launch, distances, climb. Every subject the flight needs is judged or
 * "not assessed", with the reason. Never throws for user input: an invalid number gives "unjudged" with the reason. Complexity: as
 * `calculateDeparture`, plus `remedies` if it does not fit. Source: that of each part.
 */
export function judgeDeparture(day: DepartureDay): JudgedDeparture {
  const { input } = day;
  const departure = input && calculateDeparture(input);
  const known = departure?.takeOff !== undefined || (departure?.load?.faults.length ?? 0) > 0;
  const helps =
    input?.type.performance && known && !fits(departure as Departure, { performance: true })
      ? remedies(input, { ...(day.cooler && { cooler: day.cooler }) })
      : [];
  const weather = currentWeather(day);
  return {
    ...(departure && { departure }),
    remedies: helps,
    judgements: [
      ...report(day),
      ...(weather.report ? presentHazards(weather.report, day.accepted) : []),
      ...expected(day),
      ...trend(day, weather),
      ...light(day),
      ...(day.ownUnknown ? [ownLimitsUnknown(day.ownUnknown)] : []),
      ...judgePilot(day),
      ...judgeSky(day, departure, weather),
      ...launch(day, departure),
      ...(day.powered ? distances(day, departure, helps) : []),
    ],
  };
}

/** Judgement that the pilot's limits are unknown: missing limits must not look like satisfied ones. */
export function ownLimitsUnknown(when: NonNullable<DepartureDay["ownUnknown"]>): Judgement {
  const [missing, action] =
    when === "so far"
      ? ["They are not on this device yet", "Go online to load them."]
      : [
          "They were not on this device when the preflight started",
          "Check this flight against them yourself.",
        ];
  return {
    ...notAssessed(
      "own-limits",
      "Personal minimums",
      `${missing}. Your personal minimums and your authorisation are not checked.`,
    ),
    cause: "unknown.pilot",
    action,
  };
}

function report({ report: told, now, station, sock, reported }: DepartureDay): Judgement[] {
  if (!told) return [];
  const apart = sock && reported ? windsockDisagrees(sock, reported) : undefined;
  return [
    judgeReport(told, now, station),
    ...(apart
      ? [
          {
            id: "wind.sock",
            subject: "Windsock",
            scope: "day" as const,
            grade: "note" as const,
            sentence: apart,
            action: "Ask for the wind again.",
          },
        ]
      : []),
  ];
}

function expected({ expected: told, station, sets, input }: DepartureDay): Judgement[] {
  if (!told) return [];
  return judgeForecast({
    ...told,
    sets,
    ...(station && { station }),
    ...(input && { headingDeg: input.runway.headingDeg }),
  });
}

/** A station's trend is a forecast for two hours. What is so already is judged as the weather of now. */
function trend(day: DepartureDay, { report: told }: CurrentWeather): Judgement[] {
  const { flight } = day;
  if (!told?.trend || !flight) return [];
  const { raw, station, at } = told;
  const to = new Date(Date.parse(at) + TREND_MS).toISOString();
  const first: ForecastSpan = { ...skyOf(told), kind: "first", from: at, to };
  const judgedWith = (changes: readonly ForecastSpan[]) => {
    const spans = [first, ...changes];
    const forecast = { raw, station, issuedAt: at, from: at, to, spans, temperatures: [], unread: [] };
    // Beyond its two hours the trend says nothing.
    return expected({ ...day, expected: { ...flight, forecast, to: flight.to < to ? flight.to : to } });
  };
  const already = new Set(judgedWith([]).map(({ id }) => id));
  return judgedWith(told.trend)
    .filter(({ id, grade }) => grade !== "within limits" && !already.has(id))
    .map((one) => ({ ...one, id: one.id.replace(/^forecast/, "trend") }));
}

const skyOf = ({
  wind,
  visibilityM,
  leastVisibility,
  clouds,
  clear,
  cloudUnknown,
  weather,
}: WeatherReport): Sky => ({
  ...(wind && { wind }),
  ...(visibilityM !== undefined && { visibilityM }),
  ...(leastVisibility && { leastVisibility }),
  clouds,
  ...(clear && { clear }),
  ...(cloudUnknown && { cloudUnknown }),
  weather,
});

function light({ light: told, whyNoLight, conditions }: DepartureDay): Judgement[] {
  if (!told)
    return [
      {
        ...notAssessed("unknown.light", "Daylight", `${whyNoLight ?? "Sunrise and sunset are not known"}.`),
        cause: "unknown.light",
        action: "Check sunset yourself.",
      },
    ];
  const { today, night } = told;
  const base = {
    id: "light",
    subject: "Daylight",
    scope: "day" as const,
    limit: `day ends: ${nightBeginsText(night.begins)}`,
    source: night.source,
  };
  const left = today.leftMin;
  const minutes = (value: number) => formatQuantity({ value, unit: "min" });
  if (!today.night)
    return [
      {
        ...base,
        grade: "within limits",
        sentence:
          left === undefined ? "The flight is in daylight." : `Landing ${minutes(left)} before night.`,
      },
    ];
  if (conditions.includes("night"))
    return [
      {
        ...base,
        grade: "within limits",
        sentence: "Part of the flight is at night, and today's checklist is for night.",
      },
    ];
  const late =
    left !== undefined && left < 0 ? `Landing ${minutes(-left)} after ${night.begins}` : "It is night";
  return [
    {
      ...base,
      grade: "stop",
      sentence: `${late}: this is a night flight, but today's checklist is for day.`,
      action: "Shorten the flight, or start again with “night” selected.",
    },
  ];
}

const SHORT: Record<"takeOff" | "landing", "Take-off" | "Landing"> = {
  takeOff: "Take-off",
  landing: "Landing",
};

function distances(
  day: DepartureDay,
  departure: Departure | undefined,
  helps: readonly Remedy[],
): Judgement[] {
  const { input } = day;
  const performance = input?.type.performance;
  if (!input || !departure) return [noDistances("the runway is not chosen")];
  if (!performance) return [noDistances("no take-off and landing distances are on file for this aircraft")];
  const source = performance.takeOff.source;
  const stopped = departure.accelerateStop !== undefined && departure.accelerateStop.leftM < 0;
  const low = departure.climb?.aboveFt !== undefined && departure.climb.aboveFt < CLEAR_FT;
  const remedy = helps[0];
  const action = remedy
    ? remedyText(remedy, input.loading?.stations)
    : "No single change is enough. Wait, or do not go.";
  const made = (["takeOff", "landing"] as const).flatMap((way): Judgement[] => {
    const check = departure[way];
    if (!check) return [];
    return [
      {
        id: `distance.${way === "takeOff" ? "take-off" : "landing"}`,
        subject: `${SHORT[way]} distance`,
        scope: "day",
        grade: check.leftM < 0 ? "stop" : "within limits",
        reading: { value: Math.ceil(check.declaredNeededM), unit: "m" },
        limit: `at most ${formatQuantity({ value: check.availableM, unit: "m" })}`,
        margin: { value: Math.floor(check.leftM), unit: "m" },
        source,
        sentence: distanceText(SHORT[way], check),
        ...(check.leftM < 0 && { action, caution: "The aircraft's own handbook comes first." }),
      },
    ];
  });
  const off = departure.missing.filter(
    ({ what, refused }) =>
      refused && (what === "take-off" || what === "landing" || what === "accelerate-stop"),
  );
  const open = new Set(
    departure.missing
      .filter(({ what, refused }) => !refused && (what === "take-off" || what === "landing"))
      .map(({ why }) => why),
  );
  const noStop = day.twin && !performance.accelerateStopM;
  return [
    ...made,
    ...(open.size > 0 ? [noDistances([...open].join(" "))] : []),
    ...(made.length > 0 && departure.assumed.length > 0
      ? [
          {
            id: "distance.assumed",
            subject: "Distances",
            scope: "day" as const,
            grade: "note" as const,
            sentence: departure.assumed.join(" "),
          },
        ]
      : []),
    ...off.map(
      ({ what, why }): Judgement => ({
        ...notAssessed(`distance.${what}`, `${NAMES[what] ?? "Take-off"} distance`, why),
      }),
    ),
    ...(noStop
      ? [
          {
            ...notAssessed(
              "distance.accelerate-stop",
              "Accelerate-stop distance",
              "No accelerate-stop distance is on file for this aircraft.",
            ),
            cause: "unknown.accelerate-stop",
            action: "Look it up in the handbook.",
          },
        ]
      : []),
    ...(departure.accelerateStop && stopped
      ? [
          {
            id: "distance.accelerate-stop",
            subject: "Accelerate-stop distance",
            scope: "day" as const,
            grade: "ask" as const,
            reading: { value: Math.ceil(departure.accelerateStop.neededM), unit: "m" as const },
            limit: `at most ${formatQuantity({ value: departure.accelerateStop.availableM, unit: "m" })}`,
            margin: { value: Math.floor(departure.accelerateStop.leftM), unit: "m" as const },
            source,
            sentence: `After an engine failure at lift-off the runway is ${formatQuantity({ value: Math.ceil(-departure.accelerateStop.leftM), unit: "m" })} too short to stop.`,
            action,
          },
        ]
      : []),
    ...(low && input.runway.beyond
      ? [
          {
            id: "climb.obstacle",
            subject: "Climb-out",
            scope: "day" as const,
            grade: "stop" as const,
            reading: { value: Math.round(departure.climb?.aboveFt ?? 0), unit: "ft" as const },
            limit: `at least ${CLEAR_FT} ft clearance`,
            source,
            sentence: `Clearance over ${input.runway.beyond.what} is ${formatQuantity({ value: Math.round(departure.climb?.aboveFt ?? 0), unit: "ft" })}; ${CLEAR_FT} ft is required.`,
            action,
          },
        ]
      : []),
    ...(departure.oneEngine && departure.oneEngine.fpm <= 0
      ? [
          {
            id: "climb.one-engine",
            subject: "Climb on one engine",
            scope: "day" as const,
            grade: "note" as const,
            reading: { value: Math.round(departure.oneEngine.fpm), unit: "ft/min" as const },
            sentence:
              "It will not climb on one engine today. If an engine fails, descend at blue line to the best landing area.",
          },
        ]
      : []),
  ];
}

const NAMES: Record<string, string> = {
  "take-off": "Take-off",
  landing: "Landing",
  "accelerate-stop": "Accelerate-stop",
};

const noDistances = (why: string): Judgement => ({
  ...notAssessed(
    "unknown.distances",
    "Take-off and landing distance",
    `Not calculated: ${why.replace(/\.$/, "")}.`,
  ),
  cause: "unknown.distances",
  action: "Work them out from the handbook.",
});

function launch(day: DepartureDay, departure: Departure | undefined): Judgement[] {
  const wind = day.input?.wind;
  if (day.launchUnknown)
    return [
      {
        ...notAssessed(
          "unknown.launch",
          "Launch",
          "Wind limits not checked: the launch method is not chosen.",
        ),
        cause: "unknown.launch",
      },
    ];
  if (!day.launch || !wind || !departure?.wind) return [];
  const { way, limit } = day.launch;
  const found = [
    { name: "wind", kt: Math.max(wind.kt, wind.gustKt ?? 0), most: limit.maxWindKt },
    { name: "crosswind", kt: departure.wind.crossKt, most: limit.maxCrossKt },
    { name: "tailwind", kt: departure.wind.tailKt, most: limit.maxTailKt },
  ].flatMap(({ name, kt, most }) => (most !== undefined && kt > most ? [{ name, kt, most }] : []));
  return found.map(({ name, kt, most }) => ({
    id: `launch.${name}`,
    subject: `Launch by ${way}`,
    scope: "day",
    grade: "stop",
    reading: { value: kt, unit: "kt" },
    limit: `${name} at most ${formatQuantity({ value: most, unit: "kt" })}`,
    margin: { value: most - kt, unit: "kt" },
    source: limit.source,
    sentence: `${formatQuantity({ value: kt, unit: "kt" })} ${name}: the ${way} launch limit is ${formatQuantity({ value: most, unit: "kt" })}.`,
    action: "Wait, or use another runway or launch method.",
  }));
}
