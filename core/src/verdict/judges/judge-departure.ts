import { runwayInUse } from "../../checklist/list/runway-in-use";
import { distanceWords, remedyWords } from "../../departure/departure-words";
import { remedies } from "../../departure/make-it-fit";
import { type Departure, type DepartureInput, reckonDeparture } from "../../departure/reckon";
import type { Judgement, Source } from "../../judgement/judgement";
import { unjudged } from "../../judgement/judgement";
import { judgeMinima, type MinimaSet, type MinimaToday, minimaFor } from "../../minima/minima";
import { READING } from "../../readings/reading-keys";
import { magneticWind, sockDisagrees } from "../../runways/compare-runways";
import type { WindRange } from "../../runways/worst-wind";
import { formatQuantity } from "../../units/format";
import { judgeReport } from "../../weather/judge-report";
import { type FlightLight, lightOf } from "../../weather/light";
import { ceilingFt } from "../../weather/report";
import type { Judge, JudgedWalk } from "./judge";
import { loadOfWalk } from "./judge-loading";

const USUAL_MIN = 60;
const MINUTE = 60_000;

/** The wind of a report as the runways have it; undefined where nothing was reported or the variation is not known. */
export function reportedWind({ state }: Pick<JudgedWalk, "state">): WindRange | undefined {
  const { report, variationDeg } = state.weather ?? {};
  return report?.wind && variationDeg !== undefined ? magneticWind(report.wind, variationDeg) : undefined;
}

/** The wind that counts: what somebody saw at the sock, else the report. */
function windNow(walk: JudgedWalk): WindRange | undefined {
  const fromDeg = walk.value(READING.windFrom);
  const kt = walk.value(READING.windSpeed);
  const gustKt = walk.value(READING.windGust);
  if (fromDeg === undefined || kt === undefined) return reportedWind(walk);
  return { fromDeg, kt, ...(gustKt !== undefined && gustKt >= kt && { gustKt }) };
}

/** Everything that the departure of a walk is reckoned from, measured before planned; undefined before a runway is chosen. */
export function departureOf(walk: JudgedWalk): DepartureInput | undefined {
  const { list, state } = walk;
  const runway = runwayInUse(list, state)?.runway;
  if (!runway || !list.airfield) return undefined;
  const loaded = loadOfWalk(walk);
  const report = state.weather?.report;
  const wind = windNow(walk);
  const settingHpa = walk.value(READING.altimeterSetting) ?? report?.settingHpa;
  // Its own report is nearer to the truth than what was guessed for the battery.
  const celsius = report?.celsius ?? state.celsius;
  const minima = setsOf(walk);
  return {
    type: list.type,
    airfield: list.airfield,
    runway,
    ...(list.rules && { rules: list.rules }),
    ...(minima.length > 0 && { minima }),
    ...(list.loading && { loading: list.loading }),
    ...(loaded && { load: loaded.load, burn: loaded.burn }),
    ...(wind && { wind }),
    ...(settingHpa !== undefined && { settingHpa }),
    ...(celsius !== undefined && { celsius }),
    ...(report?.dewPointC !== undefined && { dewPointC: report.dewPointC }),
    ...(state.weather?.ground && { state: state.weather.ground }),
  };
}

function setsOf({ list, state }: JudgedWalk): MinimaSet[] {
  const { rules, type } = list;
  const day = (state.startedAt ?? "").slice(0, 10);
  return [
    ...(rules?.minima
      ? [{ of: "rule" as const, minima: minimaOf(rules.minima), source: rules.minima.source }]
      : []),
    ...(type.crosswind
      ? [
          {
            of: "aircraft" as const,
            minima: { crosswindKt: type.crosswind.kt },
            source: type.crosswind.source,
          },
        ]
      : []),
    ...minimaFor(list.minima ?? [], list.registration, day),
  ];
}

const minimaOf = ({ source: _, ...minima }: { source: Source; visibilityM?: number; ceilingFt?: number }) =>
  minima;

/** Day or night of the flight that begins now; undefined without a place or a rule of it. */
function lightToday({ list, state }: JudgedWalk): FlightLight | undefined {
  const { lat, lon } = list.airfield ?? {};
  const { night } = list.rules ?? {};
  if (lat === undefined || lon === undefined || !night || !state.lastAt) return undefined;
  const to = new Date(Date.parse(state.lastAt) + (state.plannedFlightMin ?? USUAL_MIN) * MINUTE);
  return lightOf({ from: state.lastAt, to: to.toISOString() }, { lat, lon }, night.begins);
}

function report(walk: JudgedWalk): Judgement[] {
  const { state, list } = walk;
  const told = state.weather;
  if (!told?.report || !state.lastAt) return [];
  const itemIds = walk.itemsOf([READING.windFrom, READING.windSpeed]);
  const judged = judgeReport(told.report, state.lastAt, list.airfield?.station);
  const sock = { fromDeg: walk.value(READING.windFrom), kt: walk.value(READING.windSpeed) };
  const reported = reportedWind(walk);
  const apart =
    sock.fromDeg !== undefined && sock.kt !== undefined && reported
      ? sockDisagrees({ fromDeg: sock.fromDeg, kt: sock.kt }, reported)
      : undefined;
  return [
    { ...judged, itemIds },
    ...(apart
      ? [
          {
            id: "wind.sock",
            subject: "Windsock",
            scope: "day" as const,
            grade: "note" as const,
            sentence: apart,
            action: "Ask for the wind again.",
            itemIds,
          },
        ]
      : []),
  ];
}

function light(walk: JudgedWalk): Judgement[] {
  const { list, state } = walk;
  const today = state.weather ? lightToday(walk) : undefined;
  if (!today || !list.rules?.night) return [];
  const base = {
    id: "light",
    subject: "Daylight",
    scope: "day" as const,
    limit: `day ends at ${list.rules.night.begins}`,
    source: list.rules.night.source,
  };
  const left = today.leftMin;
  if (!today.night)
    return [
      {
        ...base,
        grade: "within limits",
        sentence:
          left === undefined
            ? "It is day."
            : `It lands ${formatQuantity({ value: left, unit: "min" })} before the day ends.`,
      },
    ];
  if (list.conditions.includes("night"))
    return [
      { ...base, grade: "within limits", sentence: "Part of it is by night; the list is one for the night." },
    ];
  const late =
    left !== undefined && left < 0
      ? `It lands ${formatQuantity({ value: -left, unit: "min" })} after ${list.rules.night.begins}`
      : "It is dark";
  return [
    {
      ...base,
      grade: "stop",
      sentence: `${late}: this is a night flight, and the list is one for the day.`,
      action: "Make it shorter, or begin again with “night”.",
    },
  ];
}

function minima(walk: JudgedWalk, departure: Departure | undefined): Judgement[] {
  const { list, state } = walk;
  const wind = windNow(walk);
  const reported = state.weather?.report;
  const ceiling = reported && ceilingFt(reported);
  const endurance = walk.given.fuel?.enduranceMin;
  const night = state.weather ? lightToday(walk)?.night : undefined;
  const today: MinimaToday = {
    ...(wind && { windKt: Math.max(wind.kt, wind.gustKt ?? 0) }),
    ...(wind?.gustKt !== undefined && { gustKt: wind.gustKt - wind.kt }),
    ...(departure?.wind && { crosswindKt: departure.wind.crossKt, tailwindKt: departure.wind.tailKt }),
    ...(ceiling !== undefined && { ceilingFt: ceiling }),
    ...(reported?.visibilityM !== undefined && { visibilityM: reported.visibilityM }),
    ...(endurance !== undefined && { reserveMin: endurance - (state.plannedFlightMin ?? USUAL_MIN) }),
    ...(night !== undefined && { night }),
    passengers: list.conditions.includes("passengers"),
  };
  const itemIds = walk.itemsOf([READING.windFrom, READING.windSpeed, READING.windGust]);
  return (
    judgeMinima(setsOf(walk), today)
      // The aircraft's own crosswind is judged where the wind is.
      .filter(({ id, limit }) => id !== "minima.crosswindKt" || !limit?.includes("the aircraft's"))
      .map((judgement) => ({ ...judgement, itemIds }))
  );
}

const SHORT: Record<"takeOff" | "landing", "Take-off" | "Landing"> = {
  takeOff: "Take-off",
  landing: "Landing",
};

function distances(walk: JudgedWalk, input: DepartureInput, departure: Departure): Judgement[] {
  const { list, state } = walk;
  const itemIds = walk.itemsOf([READING.windFrom, READING.windSpeed]);
  const inUse = runwayInUse(list, state);
  const at = [...itemIds, ...(inUse ? [inUse.itemId] : [])];
  const source = list.type.performance?.takeOff.source as Source;
  const tooShort = (["takeOff", "landing"] as const).some((way) => (departure[way]?.leftM ?? 0) < 0);
  const stopped = departure.accelerateStop !== undefined && departure.accelerateStop.leftM < 0;
  const low = departure.climb?.aboveFt !== undefined && departure.climb.aboveFt < CLEAR_FT;
  const remedy = tooShort || stopped || low ? remedies(input)[0] : undefined;
  const action = remedy
    ? remedyWords(remedy, list.loading?.stations)
    : "Nothing single makes it fit: wait, or do not go.";
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
        sentence: distanceWords(SHORT[way], check),
        ...(check.leftM < 0 && { action, caution: "The aircraft's own handbook comes first." }),
        itemIds: at,
      },
    ];
  });
  const off = departure.missing.filter(
    ({ what, why }) => (what === "take-off" || what === "landing") && !NOT_TOLD.test(why),
  );
  return [
    ...made,
    ...off.map(
      ({ what, why }): Judgement => ({
        ...unjudged(`distance.${what}`, what === "landing" ? "Landing distance" : "Take-off distance", why),
        itemIds: at,
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
            sentence: `An engine that fails at lift-off leaves ${formatQuantity({ value: Math.ceil(-departure.accelerateStop.leftM), unit: "m" })} too little to stop.`,
            action,
            itemIds: at,
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
            limit: `at least ${CLEAR_FT} ft above it`,
            source,
            sentence: `Over ${input.runway.beyond.what} it is ${formatQuantity({ value: Math.round(departure.climb?.aboveFt ?? 0), unit: "ft" })}; ${CLEAR_FT} are wanted.`,
            action,
            itemIds: at,
          },
        ]
      : []),
    ...(departure.oneEngine && departure.oneEngine.fpm <= 0
      ? [
          {
            id: "climb.one-engine",
            subject: "On one engine",
            scope: "day" as const,
            grade: "note" as const,
            reading: { value: Math.round(departure.oneEngine.fpm), unit: "ft/min" as const },
            sentence:
              "It does not climb on one today: an engine that fails means drifting down to where it can be landed.",
            itemIds: at,
          },
        ]
      : []),
  ];
}

/** So far above what stands beyond the end. Common practice. */
const CLEAR_FT = 50;
/** What nobody has entered is not held against anybody. */
const NOT_TOLD = /not known/;

function launch(walk: JudgedWalk, departure: Departure | undefined): Judgement[] {
  const { list, state } = walk;
  const way = state.plannedLaunch;
  const limit = way ? list.type.launch?.[way] : undefined;
  const wind = windNow(walk);
  if (!limit || !wind || !departure?.wind) return [];
  const found = [
    { name: "wind", kt: Math.max(wind.kt, wind.gustKt ?? 0), most: limit.maxWindKt },
    { name: "crosswind", kt: departure.wind.crossKt, most: limit.maxCrossKt },
    { name: "tailwind", kt: departure.wind.tailKt, most: limit.maxTailKt },
  ].flatMap(({ name, kt, most }) => (most !== undefined && kt > most ? [{ name, kt, most }] : []));
  const itemIds = walk.itemsOf([READING.windFrom, READING.windSpeed, READING.windGust]);
  return found.map(({ name, kt, most }) => ({
    id: `launch.${name}`,
    subject: `Launch by ${way}`,
    scope: "day",
    grade: "stop",
    reading: { value: kt, unit: "kt" },
    limit: `at most ${formatQuantity({ value: most, unit: "kt" })} of ${name}`,
    margin: { value: most - kt, unit: "kt" },
    source: limit.source,
    sentence: `${formatQuantity({ value: kt, unit: "kt" })} of ${name}: a launch by ${way} takes ${formatQuantity({ value: most, unit: "kt" })}.`,
    action: "Wait, or take another launch or runway.",
    itemIds,
  }));
}

function departure(walk: JudgedWalk): Judgement[] {
  const input = departureOf(walk);
  const reckoned = input && reckonDeparture(input);
  return [
    ...report(walk),
    ...light(walk),
    ...minima(walk, reckoned),
    ...launch(walk, reckoned),
    ...(input &&
    reckoned &&
    input.type.performance &&
    input.load &&
    (input.settingHpa ?? input.celsius) !== undefined
      ? distances(walk, input, reckoned)
      : []),
  ];
}

/** What is judged of weather, distances and the limits of whoever flies. */
export const DEPARTURE_JUDGES: readonly Judge[] = [
  { id: "departure", subject: "Departure", topic: "air", needs: ["fuel", "loading"], judge: departure },
];
