import type { Airfield } from "@cravix/core/aircraft/aircraft-type";
import { type PilotInDate, pilotInDate } from "@cravix/core/airworthiness/people/pilot-in-date";
import type { Departure, DepartureInput } from "@cravix/core/departure/calculate-departure";
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
import { useMemo } from "react";
import { flightOfPerson, minimaOf } from "../../store/preflight/local-pilot";
import { applyPatch, type Change } from "../../store/state/apply-patch";
import { useAppDispatch } from "../../store/state/hooks";
import { type PlannedDeparture, planned } from "../../store/state/planned-slice";
import type { KnownAircraft } from "../aircraft-frame";
import { usePersonDue } from "../person-due";

const MINUTE = 60_000;
/** Hours ahead searched for cooler air. */
const HOURS_AHEAD = 12;

export interface DepartureInHand extends JudgedDeparture {
  field?: Airfield;
  /** Times of take-off and landing. */
  at: string;
  to: string;
  wind?: WindRange;
  choice?: RunwayChoice;
  runwayId?: string;
  input?: DepartureInput;
  departure?: Departure;
  proposed: ProposedCondition[];
  plan: PlannedDeparture;
  set(part: Change<PlannedDeparture>): void;
}

/** Limits of the current crew member, and whether they are in date; from the server and stored for offline use. */
function usePilot({ bundle, crewId, plan: { conditions, flightMin } }: KnownAircraft) {
  const { record, unknown } = usePersonDue(crewId ?? undefined);
  const { aircraft, type, papers } = bundle;
  return useMemo((): { persons: MinimaSet[]; unknown: boolean; inDate?: PilotInDate } => {
    if (!record) return { persons: [], unknown };
    const flight = flightOfPerson({ aircraft, type, papers }, { conditions, minutes: flightMin });
    return {
      persons: minimaOf(record, { aircraft, type, papers }),
      unknown,
      inDate: pilotInDate(record, flight),
    };
  }, [record, unknown, aircraft, type, papers, conditions, flightMin]);
}

/** Calculates a planned departure from the inputs so far; again after each change. */
export function useDeparture(aircraft: KnownAircraft, now: string): DepartureInHand {
  const { bundle, plan: all } = aircraft;
  const { registration } = bundle.aircraft;
  const dispatch = useAppDispatch();
  const { persons, unknown, inDate } = usePilot(aircraft);
  const plan = all.departure ?? {};
  const set = (part: Change<PlannedDeparture>) =>
    void dispatch(planned({ registration, departure: applyPatch<PlannedDeparture>(plan, part) }));
  const reckoned = useMemo(() => {
    const { type, rules, loading } = bundle;
    const departure = all.departure ?? {};
    const { weather, runwayId } = departure;
    const forecast = weather?.forecast;
    const at = departure.at || now;
    const filed =
      (bundle.fields ?? []).find(({ id }) => id === departure.fieldId) ?? bundle.airfield ?? undefined;
    const field = filed && withIntersections(filed);
    const told = weather?.report;
    // A report of another field, or an old one, is shown but not used.
    const report = told && notForNow(told, now, field?.station) === undefined ? told : undefined;
    const wind =
      report?.wind && weather?.variationDeg !== undefined
        ? magneticWind(report.wind, weather.variationDeg)
        : undefined;
    const choice = field && wind ? compareRunways(field, wind) : undefined;
    const runway = field?.runways.find(({ id }) => id === runwayId) ?? choice?.best?.runway;
    const sets = minimaSets({ rules, type, persons, registration, day: at.slice(0, 10) });
    const litres = all.load?.litres ?? evenly(bundle);
    const load = all.load && {
      stations: all.load.stations,
      litres,
      kgPerL: fuelDensity(type.fuel?.grades?.[0] ?? "100LL", 15),
      people: peopleOfPreflight(all),
    };
    const celsius = report?.celsius ?? all.celsius;
    const input: DepartureInput | undefined =
      field && runway
        ? {
            type,
            airfield: field,
            runway,
            ...(rules && { rules }),
            minima: sets,
            ...(loading && { loading }),
            ...(load && {
              load,
              burn: burnFor(
                type.fuel,
                all.flightMin,
                reserveMinutes(rules ?? undefined, all.conditions, persons),
              ),
            }),
            ...(wind && { wind }),
            ...(report?.settingHpa !== undefined && { settingHpa: report.settingHpa }),
            ...(celsius !== undefined && { celsius }),
            ...(report?.dewPointC !== undefined && { dewPointC: report.dewPointC }),
            ...(weather?.ground && { state: weather.ground }),
          }
        : undefined;
    const to = new Date(Date.parse(at) + all.flightMin * MINUTE).toISOString();
    const light =
      field?.lat !== undefined && field.lon !== undefined && rules?.night
        ? {
            today: lightOf({ from: at, to }, { lat: field.lat, lon: field.lon }, rules.night.begins),
            night: rules.night,
          }
        : undefined;
    const whyNoLight = !field
      ? "No airfield is on file: sunset is not known"
      : field.lat === undefined || field.lon === undefined
        ? `${field.name} has no coordinates on file: sunset is not known`
        : "The rules on file do not say when night begins";
    const limit = all.launch ? type.launch?.[all.launch] : undefined;
    const cooler = forecast
      ? Array.from({ length: HOURS_AHEAD }, (_, i) =>
          new Date(Date.parse(at) + (i + 1) * 60 * MINUTE).toISOString(),
        ).flatMap((hour) => {
          const warm = temperatureAt(forecast, hour);
          return warm === undefined ? [] : [{ at: hour, celsius: warm }];
        })
      : [];
    const flight = {
      from: at,
      to,
      ...(weather?.variationDeg !== undefined && { variationDeg: weather.variationDeg }),
    };
    const judged = judgeDeparture({
      now,
      powered: isPowered(type),
      ...((type.engines?.length ?? 1) > 1 && { twin: true }),
      ...(type.weatherAccepted && { accepted: type.weatherAccepted.map(({ what }) => what) }),
      ...(type.launch && !limit && { launchUnknown: true }),
      conditions: all.conditions,
      sets,
      ...(unknown && { ownUnknown: "so far" as const }),
      ...(inDate && { pilotInDate: inDate }),
      cooler,
      ...(input && { input }),
      ...(wind && { wind }),
      ...(told && { report: told }),
      flight,
      ...(forecast && { expected: { ...flight, forecast } }),
      ...(field?.station && { station: field.station }),
      ...(light ? { light } : { whyNoLight }),
      ...(all.launch && limit && { launch: { way: all.launch, limit } }),
    });
    const coldest = forecast?.temperatures.reduce(
      (low, one) => Math.min(low, one.celsius),
      Number.POSITIVE_INFINITY,
    );
    const proposed = proposedConditions(told, {
      ...(light && { night: light.today.night }),
      ...(coldest !== undefined && Number.isFinite(coldest) && { coldestC: coldest }),
    }).filter(({ condition }) => !all.conditions.includes(condition));
    return {
      at,
      to,
      proposed,
      ...judged,
      ...(field && { field }),
      ...(wind && { wind }),
      ...(choice && { choice }),
      ...(runway && { runwayId: runway.id }),
      ...(input && { input }),
    };
  }, [bundle, all, now, persons, unknown, inDate, registration]);
  return { ...reckoned, plan, set };
}

/** Default fuel: as last measured, divided by tank capacity. */
function evenly({ type, fluids }: KnownAircraft["bundle"]): Record<string, number> {
  const tanks = type.fuel?.tanks ?? [];
  const all = tanks.reduce((sum, { capacityL }) => sum + capacityL, 0);
  const litres = lastFluids(type, fluids).fuel?.litres ?? 0;
  return Object.fromEntries(tanks.map(({ id, capacityL }) => [id, all > 0 ? (litres * capacityL) / all : 0]));
}
