import type { ComposedList } from "../../checklist/list/compose-list";
import { runwayInUse, runwayItem } from "../../checklist/list/runway-in-use";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { calculateDeparture, type Departure, type DepartureInput } from "../../departure/calculate-departure";
import type { DepartureDay } from "../../departure/departure-day";
import { judgeDeparture } from "../../departure/judge-departure";
import { minimaSets } from "../../departure/minima-sets";
import { type Judgement, notAssessed } from "../../judgement/judgement";
import { type MinimaSet, strictest } from "../../minima/minima";
import { READING } from "../../readings/reading-keys";
import { type FlightLight, lightOf } from "../../weather/light";
import { type Given, itemsOfKinds, type Judge, type JudgedPreflight } from "./judge";
import { loadOfPreflight } from "./judge-loading";
import { usableReadings } from "./usable-readings";
import { currentReport, reportedWind, windNow } from "./wind-now";

const USUAL_MIN = 60;

/** True for an aircraft that takes off by its own engine: everything but a glider. */
export const isPowered = ({ launch, fuel }: Pick<ComposedList["type"], "launch" | "fuel">): boolean =>
  launch === undefined || fuel !== undefined;

const MINUTE = 60_000;

/** Input for a preflight's departure, measured values before planned ones; undefined without a chosen runway. */
export function departureOf(preflight: JudgedPreflight): DepartureInput | undefined {
  const { list, state } = preflight;
  const runway = runwayInUse(list, state)?.runway;
  if (!runway || !list.airfield) return undefined;
  const loaded = loadOfPreflight(preflight);
  const report = currentReport(preflight);
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

/** Day or night for the flight starting now, or why it is unknown. */
function lightForFlight({ list, state }: JudgedPreflight): FlightLight | { why: string } {
  const { airfield, rules } = list;
  if (!airfield) return { why: "No airfield is on file: sunset is not known" };
  const { lat, lon, name } = airfield;
  if (lat === undefined || lon === undefined)
    return { why: `${name} has no coordinates on file: sunset is not known` };
  if (!rules?.night) return { why: "The rules on file do not say when night begins" };
  const from = state.lastAt ?? state.startedAt;
  if (!from) return { why: "The time of the flight is not known" };
  const to = new Date(Date.parse(from) + (state.plannedFlightMin ?? USUAL_MIN) * MINUTE);
  return lightOf({ from, to: to.toISOString() }, { lat, lon }, rules.night.begins);
}

/** Time of the flight starting now. */
function flightNow({ state }: JudgedPreflight): DepartureDay["flight"] {
  const { variationDeg } = state.weather ?? {};
  const from = state.lastAt ?? state.startedAt;
  if (!from) return undefined;
  const to = new Date(Date.parse(from) + (state.plannedFlightMin ?? USUAL_MIN) * MINUTE).toISOString();
  return { from, to, ...(variationDeg !== undefined && { variationDeg }) };
}

function departure(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  const input = departureOf(preflight);
  const wind = windNow(preflight);
  const told = state.weather?.report;
  const [fromDeg, kt] = [preflight.value(READING.windFrom), preflight.value(READING.windSpeed)];
  const reported = reportedWind(preflight);
  const endurance = preflight.given.fuel?.enduranceMin;
  const today = lightForFlight(preflight);
  const flight = flightNow(preflight);
  const forecast = state.weather?.forecast;
  const way = state.plannedLaunch;
  const limit = way ? list.type.launch?.[way] : undefined;
  const { judgements } = judgeDeparture({
    now: state.lastAt ?? state.startedAt ?? "",
    powered: isPowered(list.type),
    ...((list.type.engines?.length ?? 1) > 1 && { twin: true }),
    ...(list.type.weatherAccepted && { accepted: list.type.weatherAccepted.map(({ what }) => what) }),
    ...(list.type.launch && !limit && { launchUnknown: true }),
    conditions: list.conditions,
    // The aircraft's own crosswind limit is judged with the windsock's wind, if that was read.
    sets: setsOf(preflight).filter(
      ({ of }) => of !== "aircraft" || fromDeg === undefined || kt === undefined,
    ),
    ...(list.ownUnknown && { ownUnknown: "when it began" as const }),
    ...(list.pilotInDate && { pilotInDate: list.pilotInDate }),
    ...(input && { input }),
    ...(wind && { wind }),
    ...(told && { report: told }),
    ...(flight && { flight }),
    ...(flight && forecast && { expected: { ...flight, forecast } }),
    ...(list.airfield?.station && { station: list.airfield.station }),
    ...(fromDeg !== undefined && kt !== undefined && { sock: { fromDeg, kt } }),
    ...(reported && { reported }),
    ...("why" in today
      ? { whyNoLight: today.why }
      : list.rules?.night && { light: { today, night: list.rules.night } }),
    ...(endurance !== undefined && { reserveMin: endurance - (state.plannedFlightMin ?? USUAL_MIN) }),
    ...(way && limit && { launch: { way, limit } }),
  });
  const place = runwayItem(list);
  const itemIds = place ? [place.id] : [];
  const sockRead = fromDeg !== undefined && kt !== undefined;
  // With a windsock reading the crosswind judge says so.
  const noLimit = wind && !sockRead && strictest(setsOf(preflight), "crosswindKt") === undefined;
  const made = noLimit
    ? [...judgements, notAssessed("wind.cross", "Crosswind", "No crosswind limit on file.")]
    : judgements;
  return made.map((judgement) => ({ ...judgement, itemIds }));
}

/** Judges of weather, distances and personal minimums. */
export const DEPARTURE_JUDGES: readonly Judge[] = [
  { id: "departure", subject: "Departure", topic: "air", needs: ["fuel", "loading"], judge: departure },
];
