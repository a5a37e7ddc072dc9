import type { AircraftType, Airfield, RuleSet, Runway } from "../aircraft/aircraft-type";
import { checkLoad, type LoadCheck } from "../mass-and-balance/check-load";
import type { Burn, Load, LoadingProfile } from "../mass-and-balance/loading-profile";
import { type MinimaSet, strictest } from "../minima/minima";
import { type AbortPoint, abortPoint } from "../performance/abort-point";
import { aboveObstacleFt, climbGradient, trueSpeedKt } from "../performance/climb-out";
import { type DistanceNeeded, distanceNeeded, type SurfaceState } from "../performance/distance-needed";
import { type ChartPoint, readChart } from "../performance/read-chart";
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

/** Distance needed compared with the distance available. */
export interface DistanceCheck extends DistanceNeeded {
  availableM: number;
  /** Margin in m, negative if too short. */
  leftM: number;
}

/** A value that was not calculated, and why; `told` is false if its input was never entered, which is not held against the pilot. */
export interface Missing {
  what: "take-off" | "landing" | "climb" | "one engine" | "air" | "wind" | "load";
  why: string;
  told: boolean;
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
  accelerateStop?: { neededM: number; availableM: number; leftM: number };
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
      missing.push({ what, why: error.message, told: true });
      return undefined;
    }
  };
  const { wind: told, settingHpa, celsius, dewPointC } = input;
  const wind = told && attempt("wind", () => worstWind(runway.headingDeg, told));
  const air =
    settingHpa === undefined || celsius === undefined
      ? undefined
      : attempt("air", () => fieldAir(settingHpa, airfield.elevationFt, celsius, dewPointC));
  const { loading, load: loaded, burn = { taxiL: 0, tripL: 0 } } = input;
  const checked = loading && loaded && attempt("load", () => checkLoad(loading, loaded, burn));
  for (const why of checked?.missing ?? []) missing.push({ what: "load", why, told: true });
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
    missing,
  };
  const { performance } = type;
  if (!performance) return result;
  if (!air || celsius === undefined)
    missing.push({
      what: "take-off",
      why: "Altimeter setting or temperature missing. Enter both.",
      told: false,
    });
  if (takeoffKg === undefined || landingKg === undefined)
    missing.push({
      what: "take-off",
      why: "Take-off mass not known. Enter the load on board and the fuel.",
      told: false,
    });
  if (!told) missing.push({ what: "wind", why: "Wind not known: calculated for still air.", told: false });
  const { declared } = runway;
  if (!declared)
    missing.push({
      what: "take-off",
      why: `Runway ${runway.id} has no declared distances on file.`,
      told: true,
    });
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
  const check = (way: "takeOff" | "landing", kg: number, availableM: number): DistanceCheck => {
    const needed = distanceNeeded(performance, way, at(kg), safetyFactor(input, way));
    return { ...needed, availableM, leftM: availableM - needed.neededM };
  };
  const point = (kg: number): ChartPoint => ({ kg, celsius, pressureAltitudeFt: air.pressureAltitudeFt });
  if (declared) {
    const takeOff = attempt("take-off", () => check("takeOff", takeoffKg, declared.todaM));
    if (takeOff) {
      // The ground roll must also fit the take-off run available, with the same safety factor.
      const onGround = takeOff.rollM * takeOff.safety.by;
      const leftM = Math.min(takeOff.leftM, declared.toraM - onGround);
      result.takeOff = { ...takeOff, leftM };
      result.abort = abortPoint(
        { toraM: declared.toraM, rollM: takeOff.rollM, liftOffKt: performance.liftOffKt },
        runway.marks,
      );
    }
    const landing = attempt("landing", () => check("landing", landingKg, declared.ldaM));
    if (landing) result.landing = landing;
    const { accelerateStopM } = performance;
    if (accelerateStopM) {
      const neededM = attempt("one engine", () => readChart(accelerateStopM.chart, point(takeoffKg)));
      if (neededM !== undefined)
        result.accelerateStop = { neededM, availableM: declared.asdaM, leftM: declared.asdaM - neededM };
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
              { todaM: declared.todaM, ...result.takeOff, gradientPercent: climb.gradientPercent },
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
