import type { Airfield } from "@cravix/core/aircraft/aircraft-type";
import type { PilotInDate } from "@cravix/core/airworthiness/people/pilot-in-date";
import type { DepartureInput } from "@cravix/core/departure/calculate-departure";
import { type JudgedDeparture, judgeDeparture } from "@cravix/core/departure/judge-departure";
import { minimaSets } from "@cravix/core/departure/minima-sets";
import { fuelDensity } from "@cravix/core/fuel/grade/fuel-grades";
import { lastFluids } from "@cravix/core/logs/last-fluids";
import type { MinimaSet } from "@cravix/core/minima/minima";
import { compareRunways, magneticWind, type RunwayChoice } from "@cravix/core/runways/compare-runways";
import { withIntersections } from "@cravix/core/runways/with-intersections";
import type { WindRange } from "@cravix/core/runways/worst-wind";
import { isPowered } from "@cravix/core/verdict/judges/judge-departure";
import { burnFor, peopleOfPreflight, reserveMinutes } from "@cravix/core/verdict/judges/judge-loading";
import { temperatureAt } from "@cravix/core/weather/forecast-at";
import { notForNow, type ProposedCondition, proposedConditions } from "@cravix/core/weather/judge-report";
import { lightOf } from "@cravix/core/weather/light";
import type { Forecast, WeatherReport } from "@cravix/core/weather/report";
import type { KnownAircraft } from "../aircraft-frame";

const MINUTE = 60_000;
/** Hours ahead searched for cooler air. */
const HOURS_AHEAD = 12;

/** A planned departure as judged: times, wind, runway, and what is proposed. */
export interface PlannedDepartureJudged extends JudgedDeparture {
  field?: Airfield;
  /** Times of take-off and landing. */
  at: string;
  to: string;
  wind?: WindRange;
  choice?: RunwayChoice;
  runwayId?: string;
  input?: DepartureInput;
  proposed: ProposedCondition[];
}

interface Pilot {
  persons: MinimaSet[];
  unknown: boolean;
  inDate?: PilotInDate;
}

type Bundle = KnownAircraft["bundle"];
type Plan = KnownAircraft["plan"];

/** Judges a planned departure by what is known so far. `now` in ISO 8601. */
export function judgePlannedDeparture(
  bundle: Bundle,
  plan: Plan,
  { persons, unknown, inDate }: Pilot,
  now: string,
): PlannedDepartureJudged {
  const { type, rules } = bundle;
  const { weather } = plan.departure ?? {};
  const forecast = weather?.forecast;
  const at = plan.departure?.at || now;
  const to = new Date(Date.parse(at) + plan.flightMin * MINUTE).toISOString();
  const field = fieldOf(bundle, plan);
  const { report, wind } = usableWeather(plan, field, now);
  const choice = field && wind ? compareRunways(field, wind) : undefined;
  const runway = field?.runways.find(({ id }) => id === plan.departure?.runwayId) ?? choice?.best?.runway;
  const sets = minimaSets({
    rules,
    type,
    persons,
    registration: bundle.aircraft.registration,
    day: at.slice(0, 10),
  });
  const input =
    field && runway
      ? {
          type,
          airfield: field,
          runway,
          ...(rules && { rules }),
          minima: sets,
          ...loadOf(bundle, plan, persons),
          ...(wind && { wind }),
          ...airOf(plan, report),
          ...(weather?.ground && { state: weather.ground }),
        }
      : undefined;
  const light = lightFor(bundle, field, { from: at, to });
  const flight = {
    from: at,
    to,
    ...(weather?.variationDeg !== undefined && { variationDeg: weather.variationDeg }),
  };
  const judged = judgeDeparture({
    now,
    ...ofType(type),
    ...launchOf(type, plan),
    conditions: plan.conditions,
    sets,
    ...(unknown && { ownUnknown: "so far" as const }),
    ...(inDate && { pilotInDate: inDate }),
    cooler: forecast ? hoursAhead(forecast, at) : [],
    ...(input && { input }),
    ...(wind && { wind }),
    ...(weather?.report && { report: weather.report }),
    flight,
    ...(forecast && { expected: { ...flight, forecast } }),
    ...(field?.station && { station: field.station }),
    ...light,
  });
  return {
    at,
    to,
    proposed: proposals(plan, light),
    ...judged,
    ...(field && { field }),
    ...(wind && { wind }),
    ...(choice && { choice }),
    ...(runway && { runwayId: runway.id }),
    ...(input && { input }),
  };
}

function fieldOf({ fields, airfield }: Bundle, { departure }: Plan): Airfield | undefined {
  const filed = (fields ?? []).find(({ id }) => id === departure?.fieldId) ?? airfield ?? undefined;
  return filed && withIntersections(filed);
}

/** A report of another field, or an old one, is shown but not used. */
function usableWeather({ departure }: Plan, field: Airfield | undefined, now: string) {
  const { report: told, variationDeg } = departure?.weather ?? {};
  const report = told && notForNow(told, now, field?.station) === undefined ? told : undefined;
  const wind =
    report?.wind && variationDeg !== undefined ? magneticWind(report.wind, variationDeg) : undefined;
  return { report, wind };
}

function airOf({ celsius: told }: Plan, report: WeatherReport | undefined) {
  const celsius = report?.celsius ?? told;
  return {
    ...(report?.settingHpa !== undefined && { settingHpa: report.settingHpa }),
    ...(celsius !== undefined && { celsius }),
    ...(report?.dewPointC !== undefined && { dewPointC: report.dewPointC }),
  };
}

function loadOf(bundle: Bundle, plan: Plan, persons: MinimaSet[]): Partial<DepartureInput> {
  const { type, rules, loading } = bundle;
  const profile = loading && { loading };
  if (!plan.load) return { ...profile };
  return {
    ...profile,
    load: {
      stations: plan.load.stations,
      litres: plan.load.litres ?? evenly(bundle),
      kgPerL: fuelDensity(type.fuel?.grades?.[0] ?? "100LL", 15),
      people: peopleOfPreflight(plan),
    },
    burn: burnFor(type.fuel, plan.flightMin, reserveMinutes(rules ?? undefined, plan.conditions, persons)),
  };
}

/** Daylight at the field during the flight, or why it is not known. */
function lightFor({ rules }: Bundle, field: Airfield | undefined, flight: { from: string; to: string }) {
  if (!field) return { whyNoLight: "No airfield is on file: sunset is not known" };
  const { lat, lon, name } = field;
  if (lat === undefined || lon === undefined)
    return { whyNoLight: `${name} has no coordinates on file: sunset is not known` };
  if (!rules?.night) return { whyNoLight: "The rules on file do not say when night begins" };
  const { night } = rules;
  return { light: { today: lightOf(flight, { lat, lon }, night.begins), night } };
}

function ofType(type: Bundle["type"]) {
  const { engines, weatherAccepted } = type;
  return {
    powered: isPowered(type),
    ...((engines?.length ?? 1) > 1 && { twin: true }),
    ...(weatherAccepted && { accepted: weatherAccepted.map(({ what }) => what) }),
  };
}

function launchOf(type: Bundle["type"], { launch: way }: Plan) {
  const limit = way ? type.launch?.[way] : undefined;
  return {
    ...(type.launch && !limit && { launchUnknown: true }),
    ...(way && limit && { launch: { way, limit } }),
  };
}

/** Forecast temperatures of the hours after take-off. */
function hoursAhead(forecast: Forecast, at: string): { at: string; celsius: number }[] {
  return Array.from({ length: HOURS_AHEAD }, (_, i) =>
    new Date(Date.parse(at) + (i + 1) * 60 * MINUTE).toISOString(),
  ).flatMap((hour) => {
    const celsius = temperatureAt(forecast, hour);
    return celsius === undefined ? [] : [{ at: hour, celsius }];
  });
}

/** Conditions that the weather and the light suggest and that are not chosen yet. */
function proposals(
  { departure, conditions }: Plan,
  { light }: { light?: { today: { night: boolean } } },
): ProposedCondition[] {
  const { report, forecast } = departure?.weather ?? {};
  const coldest = Math.min(...(forecast?.temperatures ?? []).map(({ celsius }) => celsius));
  return proposedConditions(report, {
    ...(light && { night: light.today.night }),
    ...(Number.isFinite(coldest) && { coldestC: coldest }),
  }).filter(({ condition }) => !conditions.includes(condition));
}

/** Default fuel: as last measured, divided by tank capacity. */
function evenly({ type, fluids }: KnownAircraft["bundle"]): Record<string, number> {
  const tanks = type.fuel?.tanks ?? [];
  const all = tanks.reduce((sum, { capacityL }) => sum + capacityL, 0);
  const litres = lastFluids(type, fluids).fuel?.litres ?? 0;
  return Object.fromEntries(tanks.map(({ id, capacityL }) => [id, all > 0 ? (litres * capacityL) / all : 0]));
}
