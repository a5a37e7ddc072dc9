import type { AircraftType, Airfield, Runway } from "../aircraft/aircraft-type";
import { checkLoad, type LoadCheck } from "../mass-and-balance/check-load";
import type { Burn, Load, LoadingProfile } from "../mass-and-balance/loading-profile";
import { type MinimaSet, strictest } from "../minima/minima";
import { type AbortPoint, abortPoint } from "../performance/abort-point";
import { aboveObstacleFt, climbGradient, trueSpeedKt } from "../performance/climb-out";
import {
  accelerateStopNeeded,
  type DistanceNeeded,
  distanceNeeded,
  type Factor,
  type SurfaceState,
} from "../performance/distance-needed";
import { type ChartPoint, readChart } from "../performance/read-chart";
import type { RuleSet } from "../rules/rule-set";
import { type WindRange, type WorstWind, worstWind } from "../runways/worst-wind";
import { QuantityError } from "../units/convert";
import { type FieldAir, fieldAir } from "../weather/air-today";

/** Input for calculating a departure. Absent values are unknown; none is assumed. */
export interface DepartureInput {
  type: Pick<AircraftType, "performance" | "crosswind" | "launch">;
  airfield: Pick<Airfield, "elevationFt" | "runways">;
  runway: Runway;
  rules?: Pick<RuleSet, "runwayFactors">;
  minima?: readonly MinimaSet[];
  loading?: LoadingProfile;
  load?: Load;
  burn?: Burn;
  /** Relative to magnetic north, as the runways. */
  wind?: WindRange;
  settingHpa?: number;
  celsius?: number;
  dewPointC?: number;
  state?: SurfaceState;
}

/** Distance needed compared with the declared distance that leaves the least margin. */
export interface DistanceCheck extends DistanceNeeded {
  /** Which declared distance it is. */
  declared: "take-off distance" | "take-off run" | "landing distance";
  /** Distance needed within it, with the safety factor, m. */
  declaredNeededM: number;
  availableM: number;
  /** Margin in m, negative if too short. */
  leftM: number;
}

/** A value that was not calculated, or only with an assumption, and why. */
export interface Missing {
  what: "take-off" | "landing" | "accelerate-stop" | "climb" | "one engine" | "air" | "wind" | "load";
  why: string;
  /** True if the values are known and the handbook or a rule of arithmetic refuses them: off the chart. */
  refused?: true;
}

export interface Departure {
  runway: Runway;
  wind?: WorstWind;
  air?: FieldAir;
  load?: LoadCheck;
  takeoffKg?: number;
  landingKg?: number;
  takeOff?: DistanceCheck;
  landing?: DistanceCheck;
  abort?: AbortPoint;
  accelerateStop?: { neededM: number; availableM: number; leftM: number; factors: Factor[] };
  /** What was assumed because it is not known, in words. */
  assumed: string[];
  climb?: { fpm: number; gradientPercent: number; aboveFt?: number };
  oneEngine?: { fpm: number; gradientPercent: number };
  /** Values not calculated, with reasons. */
  missing: Missing[];
}

/** True for a grass surface by its name in the file: turf, grass, meadow. */
export const isGrass = ({ surface }: Pick<Runway, "surface">): boolean => /grass|turf|meadow/i.test(surface);

/**
 * Calculates a departure from one runway: worst wind, air, load, distances against the declared ones, abort point, climb. A value
 * with missing or invalid input is left out and named in `missing`; never throws QuantityError. Complexity: O(chart lines +
 * envelope corners).
 * Source: that of each part.
 */
export function calculateDeparture(input: DepartureInput): Departure {
  const { runway, airfield, type } = input;
  const missing: Departure["missing"] = [];
  const attempt = <T>(what: Missing["what"], make: () => T): T | undefined => {
    try {
      return make();
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      missing.push({ what, why: error.message, refused: true });
      return undefined;
    }
  };
  const { wind: told, celsius, dewPointC } = input;
  const assumed: string[] = [];
  const settingHpa = input.settingHpa ?? STANDARD_HPA;
  if (input.settingHpa === undefined)
    assumed.push(
      `Altimeter setting not known: assumed ${STANDARD_HPA_WORDS} Each 10 hPa less adds about 300 ft of pressure altitude.`,
    );
  const wind = told && attempt("wind", () => worstWind(runway.headingDeg, told));
  const air =
    celsius === undefined
      ? undefined
      : attempt("air", () => fieldAir(settingHpa, airfield.elevationFt, celsius, dewPointC));
  const { loading, load: loaded, burn = { taxiL: 0, tripL: 0 } } = input;
  const checked = loading && loaded && attempt("load", () => checkLoad(loading, loaded, burn));
  for (const why of checked?.missing ?? []) missing.push({ what: "load", why });
  // A person without a mass is still on board, so the load counts as unknown.
  const load = checked?.missing.length ? undefined : checked;
  const kgAt = (name: "take-off" | "landing") => load?.points.find((point) => point.name === name)?.kg;
  const [takeoffKg, landingKg] = [kgAt("take-off"), kgAt("landing")];
  const result: Departure = {
    runway,
    ...(wind && { wind }),
    ...(air && { air }),
    ...(load && { load }),
    ...(takeoffKg !== undefined && { takeoffKg }),
    ...(landingKg !== undefined && { landingKg }),
    assumed,
    missing,
  };
  const { performance } = type;
  if (!performance) return result;
  const both = (why: string) => missing.push({ what: "take-off", why }, { what: "landing", why });
  if (celsius === undefined) both("Temperature not known. Enter it.");
  if (takeoffKg === undefined || landingKg === undefined)
    both("Take-off mass not known. Enter the load on board and the fuel.");
  if (!wind) assumed.push("Wind not known: calculated for still air.");
  const { declared } = runway;
  if (!declared) both(`Runway ${runway.id} has no declared distances on file.`);
  if (!air || celsius === undefined || takeoffKg === undefined || landingKg === undefined) return result;
  const alongKt = wind?.alongKt ?? 0;
  const at = (kg: number) => ({
    kg,
    celsius,
    pressureAltitudeFt: air.pressureAltitudeFt,
    elevationFt: airfield.elevationFt,
    alongKt,
    grass: isGrass(runway),
    state: input.state ?? ("dry" as const),
    slopePercent: runway.slopePercent ?? 0,
  });
  const needed = (way: "takeOff" | "landing", kg: number) =>
    distanceNeeded(performance, way, at(kg), safetyFactor(input, way));
  const point = (kg: number): ChartPoint => ({ kg, celsius, pressureAltitudeFt: air.pressureAltitudeFt });
  if (declared) {
    const takeOff = attempt("take-off", () => needed("takeOff", takeoffKg));
    if (takeOff) {
      // The ground roll must also fit the take-off run available, with the same safety factor.
      const overObstacle = within(takeOff, "take-off distance", takeOff.neededM, declared.todaM);
      const onGround = within(takeOff, "take-off run", takeOff.rollM * takeOff.safety.by, declared.toraM);
      result.takeOff = onGround.leftM < overObstacle.leftM ? onGround : overObstacle;
      result.abort = abortPoint(
        { toraM: declared.toraM, rollM: takeOff.rollM, liftOffKt: performance.liftOffKt },
        runway.marks,
      );
      if (!wind) assumed.push(...tailwindItBears(input, result.takeOff));
    }
    const landing = attempt("landing", () => needed("landing", landingKg));
    if (landing) result.landing = within(landing, "landing distance", landing.neededM, declared.ldaM);
    const { accelerateStopM } = performance;
    if (accelerateStopM) {
      const stop = attempt("accelerate-stop", () =>
        accelerateStopNeeded(readChart(accelerateStopM.chart, point(takeoffKg)), performance, at(takeoffKg)),
      );
      if (stop) {
        const availableM = declared.asdaM;
        result.accelerateStop = { ...stop, availableM, leftM: availableM - stop.neededM };
      }
    }
  }
  const gradient = (
    chart: NonNullable<typeof performance.climbFpm>,
    kt: number,
    what: "climb" | "one engine",
  ) =>
    attempt(what, () => {
      const fpm = readChart(chart.chart, point(takeoffKg));
      const trueKt = trueSpeedKt(kt, air.densityAltitudeFt);
      // Beyond the runway end the wind is rarely more favourable.
      return { fpm, gradientPercent: climbGradient(fpm, trueKt, Math.min(0, alongKt)) };
    });
  if (performance.climbFpm) {
    const climb = gradient(performance.climbFpm, performance.climbKt, "climb");
    if (climb) {
      const aboveFt =
        runway.beyond && declared && result.takeOff
          ? aboveObstacleFt(
              {
                todaM: declared.todaM,
                rollM: result.takeOff.rollM * result.takeOff.safety.by,
                over50M: result.takeOff.neededM,
                gradientPercent: climb.gradientPercent,
              },
              runway.beyond,
            )
          : undefined;
      result.climb = { ...climb, ...(aboveFt !== undefined && { aboveFt }) };
    }
  }
  if (performance.oneEngineFpm) {
    const one = gradient(
      performance.oneEngineFpm,
      performance.oneEngineKt ?? performance.climbKt,
      "one engine",
    );
    if (one) result.oneEngine = one;
  }
  return result;
}

const STANDARD_HPA = 1013.25;
const STANDARD_HPA_WORDS = "standard pressure (1,013 hPa).";

const within = (
  needed: DistanceNeeded,
  declared: DistanceCheck["declared"],
  declaredNeededM: number,
  availableM: number,
): DistanceCheck => ({
  ...needed,
  declared,
  declaredNeededM,
  availableM,
  leftM: availableM - declaredNeededM,
});

/** Tailwind up to which the take-off still fits, for a flight whose wind is not known. */
function tailwindItBears(input: DepartureInput, inStillAir: DistanceCheck): string[] {
  if (inStillAir.leftM < 0) return [];
  const { runway } = input;
  const fits = (kt: number) => {
    const departure = calculateDeparture({
      ...input,
      wind: { fromDeg: (runway.headingDeg + 180) % 360, kt },
    });
    return (
      departure.takeOff !== undefined &&
      departure.takeOff.leftM >= 0 &&
      (departure.climb?.aboveFt ?? Number.POSITIVE_INFINITY) >= CLEAR_FT
    );
  };
  let kt = 0;
  while (kt < MOST_TAILWIND_KT && fits(kt + 1)) kt++;
  return [
    kt === 0
      ? "It does not fit with any tailwind."
      : `It fits with a tailwind of up to ${kt}${kt === MOST_TAILWIND_KT ? " kt or more" : " kt"}.`,
  ];
}

const MOST_TAILWIND_KT = 15;
/** Clearance above the obstacle beyond the runway end, ft. Common practice. */
export const CLEAR_FT = 50;

/** Largest of the factors required by rule, authorisation and pilot; the published one if none asks for more. */
function safetyFactor(
  { rules, minima = [] }: DepartureInput,
  way: "takeOff" | "landing",
): number | undefined {
  const rule = rules?.runwayFactors?.[way];
  const own = strictest(minima, "runwayFactor")?.value;
  const published = way === "takeOff" ? 1.33 : 1.43;
  const most = Math.max(rule ?? published, own ?? 0);
  return most === published ? undefined : most;
}
