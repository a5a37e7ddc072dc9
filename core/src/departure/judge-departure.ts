import type { Condition, RuleSet } from "../aircraft/aircraft-type";
import type { Judgement, Source } from "../judgement/judgement";
import { notAssessed } from "../judgement/judgement";
import { judgeMinima, type MinimaForFlight, type MinimaSet } from "../minima/minima";
import type { LaunchLimit } from "../performance/performance-profile";
import { windsockDisagrees } from "../runways/compare-runways";
import type { WindRange } from "../runways/worst-wind";
import { formatQuantity } from "../units/format";
import { judgeReport } from "../weather/judge-report";
import type { FlightLight } from "../weather/light";
import { nightBeginsText } from "../weather/night-begins";
import { ceilingFt, type WeatherReport } from "../weather/report";
import { calculateDeparture, type Departure, type DepartureInput } from "./calculate-departure";
import { distanceText, remedyText } from "./departure-text";
import { type ForecastDay, judgeForecast } from "./judge-forecast";
import { fits, type Remedy, remedies } from "./remedies";

/** Known data of a departure; absent values are not judged. */
export interface DepartureDay {
  now: string;
  /** Present if a runway is chosen. */
  input?: DepartureInput;
  report?: WeatherReport;
  /** Weather station of the field. */
  station?: string;
  /** Forecast for the field and the time of the flight. */
  expected?: Pick<ForecastDay, "forecast" | "from" | "to" | "variationDeg">;
  /** Wind seen at the windsock, and the report, with the same north reference. */
  sock?: { fromDeg: number; kt: number };
  reported?: WindRange;
  /** Governing wind, if no runway is chosen yet. */
  wind?: WindRange;
  light?: { today: FlightLight; night: NonNullable<RuleSet["night"]> };
  conditions: readonly Condition[];
  sets: readonly MinimaSet[];
  /**
   * Set if the pilot's personal minimums and authorisation are unknown, now or when the preflight started: `sets` is without
   * them.
   */
  ownUnknown?: "so far" | "when it began";
  /** Fuel left on landing, minutes. */
  reserveMin?: number;
  launch?: { way: string; limit: LaunchLimit };
  /** Later hours with their forecast temperatures. */
  cooler?: readonly { at: string; celsius: number }[];
}

export interface JudgedDeparture {
  departure?: Departure;
  judgements: Judgement[];
  remedies: Remedy[];
}

/**
 * Judges a departure: report, daylight, personal minimums, launch, distances, climb. Never throws for user input: an invalid
 * number gives "unjudged" with the reason. Complexity: as `calculateDeparture`, plus `remedies` if it does not fit. Source: that
 * of each part.
 */
export function judgeDeparture(day: DepartureDay): JudgedDeparture {
  const { input } = day;
  const departure = input && calculateDeparture(input);
  const known = input?.type.performance && input.load && (input.settingHpa ?? input.celsius) !== undefined;
  const helps =
    input && known && departure && !fits(departure, { performance: true })
      ? remedies(input, { ...(day.cooler && { cooler: day.cooler }) })
      : [];
  return {
    ...(departure && { departure }),
    remedies: helps,
    judgements: [
      ...report(day),
      ...expected(day),
      ...light(day),
      ...(day.ownUnknown ? [ownLimitsUnknown(day.ownUnknown)] : []),
      ...minima(day, departure),
      ...launch(day, departure),
      ...(input && departure && known ? distances(input, departure, helps) : []),
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

function light({ light: told, conditions }: DepartureDay): Judgement[] {
  if (!told) return [];
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

function minima(day: DepartureDay, departure: Departure | undefined): Judgement[] {
  const { report: reported, conditions, sets, reserveMin } = day;
  const wind = day.input?.wind ?? day.wind;
  const ceiling = reported && ceilingFt(reported);
  const today: MinimaForFlight = {
    ...(wind && { windKt: Math.max(wind.kt, wind.gustKt ?? 0) }),
    ...(wind?.gustKt !== undefined && { gustKt: wind.gustKt - wind.kt }),
    ...(departure?.wind && { crosswindKt: departure.wind.crossKt, tailwindKt: departure.wind.tailKt }),
    ...(ceiling !== undefined && { ceilingFt: ceiling }),
    ...(reported?.visibilityM !== undefined && { visibilityM: reported.visibilityM }),
    ...(reserveMin !== undefined && { reserveMin }),
    ...(day.light && { night: day.light.today.night }),
    passengers: conditions.includes("passengers"),
  };
  return judgeMinima(sets, today);
}

const SHORT: Record<"takeOff" | "landing", "Take-off" | "Landing"> = {
  takeOff: "Take-off",
  landing: "Landing",
};

function distances(input: DepartureInput, departure: Departure, helps: readonly Remedy[]): Judgement[] {
  const source = input.type.performance?.takeOff.source as Source;
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
        reading: { value: Math.ceil(check.neededM), unit: "m" },
        limit: `at most ${formatQuantity({ value: check.availableM, unit: "m" })}`,
        margin: { value: Math.floor(check.leftM), unit: "m" },
        source,
        sentence: distanceText(SHORT[way], check),
        ...(check.leftM < 0 && { action, caution: "The aircraft's own handbook comes first." }),
      },
    ];
  });
  const off = departure.missing.filter(
    ({ what, told }) => told && (what === "take-off" || what === "landing"),
  );
  return [
    ...made,
    ...off.map(
      ({ what, why }): Judgement => ({
        ...notAssessed(
          `distance.${what}`,
          what === "landing" ? "Landing distance" : "Take-off distance",
          why,
        ),
      }),
    ),
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

/** Clearance above the obstacle beyond the runway end. Common practice. */
const CLEAR_FT = 50;

function launch(day: DepartureDay, departure: Departure | undefined): Judgement[] {
  const wind = day.input?.wind;
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
