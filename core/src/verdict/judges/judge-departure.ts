import type { ComposedList } from "../../checklist/list/compose-list";
import { runwayInUse, runwayItem } from "../../checklist/list/runway-in-use";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { calculateDeparture, type Departure, type DepartureInput } from "../../departure/calculate-departure";
import { judgeDeparture } from "../../departure/judge-departure";
import { minimaSets } from "../../departure/minima-sets";
import type { Judgement } from "../../judgement/judgement";
import type { MinimaSet } from "../../minima/minima";
import { READING } from "../../readings/reading-keys";
import { magneticWind } from "../../runways/compare-runways";
import type { WindRange } from "../../runways/worst-wind";
import { type FlightLight, lightOf } from "../../weather/light";
import { type Given, itemsOfKinds, type Judge, type JudgedPreflight } from "./judge";
import { loadOfPreflight } from "./judge-loading";
import { usableReadings } from "./usable-readings";

const USUAL_MIN = 60;
const MINUTE = 60_000;

/** Reported wind, magnetic; undefined without a report or a known variation. */
export function reportedWind({ state }: Pick<JudgedPreflight, "state">): WindRange | undefined {
  const { report, variationDeg } = state.weather ?? {};
  if (!report?.wind || variationDeg === undefined) return undefined;
  const { gustKt, ...wind } = magneticWind(report.wind, variationDeg);
  // Older records may hold an invalid gust, which must not break the page.
  return { ...wind, ...(gustKt !== undefined && gustKt >= wind.kt && { gustKt }) };
}

/** Governing wind: from the windsock, else the report. */
function windNow(preflight: JudgedPreflight): WindRange | undefined {
  const fromDeg = preflight.value(READING.windFrom);
  const kt = preflight.value(READING.windSpeed);
  const gustKt = preflight.value(READING.windGust);
  if (fromDeg === undefined || kt === undefined) return reportedWind(preflight);
  return { fromDeg, kt, ...(gustKt !== undefined && gustKt >= kt && { gustKt }) };
}

/** Input for a preflight's departure, measured values before planned ones; undefined without a chosen runway. */
export function departureOf(preflight: JudgedPreflight): DepartureInput | undefined {
  const { list, state } = preflight;
  const runway = runwayInUse(list, state)?.runway;
  if (!runway || !list.airfield) return undefined;
  const loaded = loadOfPreflight(preflight);
  const report = state.weather?.report;
  const wind = windNow(preflight);
  const settingHpa = preflight.value(READING.altimeterSetting) ?? report?.settingHpa;
  // The reported temperature is more reliable than the planned one.
  const celsius = report?.celsius ?? state.celsius;
  const minima = setsOf(preflight);
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

const setsOf = ({ list, state }: JudgedPreflight): MinimaSet[] =>
  minimaSets({
    rules: list.rules,
    type: list.type,
    persons: list.minima ?? [],
    registration: list.registration,
    day: (state.startedAt ?? "").slice(0, 10),
  });

/**
 * Departure of a preflight with the results of its judges; undefined without a chosen runway. Complexity: O(items) plus
 * `calculateDeparture`.
 */
export function departureOfPreflight(
  list: ComposedList,
  state: PreflightState,
  given: Given,
): { input: DepartureInput; departure: Departure } | undefined {
  const { quantity, value } = usableReadings(list, state);
  const input = departureOf({ list, state, quantity, value, itemsOf: itemsOfKinds(list), given });
  return input && { input, departure: calculateDeparture(input) };
}

/** Day or night for the flight starting now; undefined without coordinates or a rule. */
function lightForFlight({ list, state }: JudgedPreflight): FlightLight | undefined {
  const { lat, lon } = list.airfield ?? {};
  const { night } = list.rules ?? {};
  if (lat === undefined || lon === undefined || !night || !state.lastAt) return undefined;
  const to = new Date(Date.parse(state.lastAt) + (state.plannedFlightMin ?? USUAL_MIN) * MINUTE);
  return lightOf({ from: state.lastAt, to: to.toISOString() }, { lat, lon }, night.begins);
}

/** Forecast, and the time of the flight starting now. */
function expectedReadings({ state }: JudgedPreflight) {
  const { forecast, variationDeg } = state.weather ?? {};
  if (!forecast || !state.lastAt) return undefined;
  const to = new Date(Date.parse(state.lastAt) + (state.plannedFlightMin ?? USUAL_MIN) * MINUTE);
  return {
    forecast,
    from: state.lastAt,
    to: to.toISOString(),
    ...(variationDeg !== undefined && { variationDeg }),
  };
}

function departure(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  const input = departureOf(preflight);
  const wind = windNow(preflight);
  const told = state.weather?.report;
  const [fromDeg, kt] = [preflight.value(READING.windFrom), preflight.value(READING.windSpeed)];
  const reported = reportedWind(preflight);
  const endurance = preflight.given.fuel?.enduranceMin;
  const today = state.weather ? lightForFlight(preflight) : undefined;
  const expected = expectedReadings(preflight);
  const way = state.plannedLaunch;
  const limit = way ? list.type.launch?.[way] : undefined;
  const { judgements } = judgeDeparture({
    now: state.lastAt ?? state.startedAt ?? "",
    conditions: list.conditions,
    // The aircraft's own crosswind limit is judged with the wind.
    sets: setsOf(preflight).filter(({ of }) => of !== "aircraft"),
    ...(list.ownUnknown && { ownUnknown: "when it began" as const }),
    ...(input && { input }),
    ...(wind && { wind }),
    ...(told && { report: told }),
    ...(expected && { expected }),
    ...(list.airfield?.station && { station: list.airfield.station }),
    ...(fromDeg !== undefined && kt !== undefined && { sock: { fromDeg, kt } }),
    ...(reported && { reported }),
    ...(today && list.rules?.night && { light: { today, night: list.rules.night } }),
    ...(endurance !== undefined && { reserveMin: endurance - (state.plannedFlightMin ?? USUAL_MIN) }),
    ...(way && limit && { launch: { way, limit } }),
  });
  const place = runwayItem(list);
  const itemIds = place ? [place.id] : [];
  return judgements.map((judgement) => ({ ...judgement, itemIds }));
}

/** Judges of weather, distances and personal minimums. */
export const DEPARTURE_JUDGES: readonly Judge[] = [
  { id: "departure", subject: "Departure", topic: "air", needs: ["fuel", "loading"], judge: departure },
];
