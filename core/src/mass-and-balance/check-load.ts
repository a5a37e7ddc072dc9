import { assertFinite, assertNotNegative } from "../units/convert";
import { type EnvelopeMargin, type MassMoment, marginsAlong } from "./envelope";
import { dumpingFrom, loadPath, type PathName, type PathPoint, withoutWater } from "./load-path";
import type { Burn, Load, LoadingProfile } from "./loading-profile";
import { missingMasses } from "./missing-masses";

/** One exceeded limit, and by how much. */
export interface LoadFault {
  kind: "too heavy" | "place too heavy" | "seat too light" | "forward" | "aft" | "beyond";
  /** Station or moment concerned. */
  of: string;
  /** Kilograms over or missing. */
  kg?: number;
  /** Millimetres beyond the limit. */
  mm?: number;
  limit?: number;
}

export interface LoadCheck {
  points: PathPoint[];
  faults: LoadFault[];
  /** Questions about missing masses: until answered, only excess mass is a fault, and nothing is within limits. */
  missing: string[];
  /** Smallest margin along the flight. */
  margin: EnvelopeMargin;
}

const HAIR = 1e-6;

/**
 * Checks a load against all limits: take-off, landing and zero-fuel mass, each station, groups of stations, a glider's seats and
 * non-lifting parts, and the centre of gravity from start to zero fuel. A person without a mass is named in `missing`. Valid
 * range: masses and litres ≥ 0, finite; throws QuantityError otherwise. Complexity: O(tanks · corners²).
 * Source: the profile's limits; the arithmetic is that of FAA-H-8083-1.
 */
export function checkLoad(profile: LoadingProfile, load: Load, burn: Burn): LoadCheck {
  for (const [what, value] of [...Object.entries(load.stations), ...Object.entries(load.litres)]) {
    assertFinite(what, value);
    assertNotNegative(what, value);
  }
  const points = loadPath(profile, load, burn);
  const faults: LoadFault[] = [];
  const named = (name: PathName) => points.find((point) => point.name === name) as PathPoint;
  const over = (of: string, kg: number, limit: number | undefined, kind: LoadFault["kind"] = "too heavy") => {
    if (limit !== undefined && kg > limit + HAIR) faults.push({ kind, of, kg: kg - limit, limit });
  };
  const dry = loadPath(profile, withoutWater(profile, load), burn);
  const landsDry = profile.tanks.every(({ water }) => water !== "may stay");
  const landing = (landsDry ? dry : points).find(({ name }) => name === "landing") as PathPoint;
  over("start", named("start").kg, profile.maxRampKg?.value);
  over("take-off", named("take-off").kg, profile.maxTakeoffKg.value);
  over("landing", landing.kg, profile.maxLandingKg?.value);
  over("zero fuel", named("zero fuel").kg, profile.maxZeroFuelKg?.value);
  const at = (id: string) => load.stations[id] ?? 0;
  for (const { id, name, maxKg, minKg } of profile.stations) {
    over(name, at(id), maxKg, "place too heavy");
    if (minKg !== undefined && at(id) < minKg - HAIR)
      faults.push({ kind: "seat too light", of: name, kg: minKg - at(id), limit: minKg });
  }
  for (const { name, stations, maxKg } of profile.groups ?? [])
    over(
      name,
      stations.reduce((sum, id) => sum + at(id), 0),
      maxKg,
      "place too heavy",
    );
  const { nonLifting } = profile;
  if (nonLifting)
    over(
      "the non-lifting parts",
      nonLifting.stations.reduce((sum, id) => sum + at(id), nonLifting.emptyKg),
      nonLifting.max.value,
      "place too heavy",
    );
  const margin = wholeWay(profile, load, points, dry);
  if (margin.forwardMm < -HAIR)
    faults.push({ kind: "forward", of: whenOf(points, margin.forwardAt), mm: -margin.forwardMm });
  if (margin.aftMm < -HAIR) faults.push({ kind: "aft", of: whenOf(points, margin.aftAt), mm: -margin.aftMm });
  // Above the envelope it is too heavy, which is reported already.
  if (margin.beyond && !faults.some(({ kind }) => kind === "too heavy"))
    faults.push({ kind: "beyond", of: "the envelope" });
  const missing = missingMasses(profile, load);
  return { points, faults: missing.length > 0 ? faults.filter(heavy) : faults, missing, margin };
}

/** Faults that adding mass cannot cure. */
const heavy = ({ kind }: LoadFault): boolean => kind === "too heavy" || kind === "place too heavy";

/** Margins along the flight with water ballast, without it, and while it is dumped at any named point. */
function wholeWay(
  profile: LoadingProfile,
  load: Load,
  points: readonly PathPoint[],
  dry: readonly PathPoint[],
): EnvelopeMargin {
  const { corners } = profile.envelope;
  // In-flight limits do not apply before take-off.
  const flown = (all: readonly PathPoint[]) => all.slice(all.findIndex(({ name }) => name === "take-off"));
  const hasWater = profile.tanks.some(({ tank, water }) => water && (load.litres[tank] ?? 0) > 0);
  const paths: (readonly MassMoment[])[] = hasWater
    ? [flown(points), flown(dry), ...flown(points).map((point) => dumpingFrom(profile, load, point))]
    : [flown(points)];
  const ways = paths.flatMap((path) =>
    path.slice(1).map((to, i) => marginsAlong(corners, path[i] as MassMoment, to)),
  );
  return ways.reduce((least, way) => ({
    ...(way.forwardMm < least.forwardMm ? pick(way, "forward") : pick(least, "forward")),
    ...(way.aftMm < least.aftMm ? pick(way, "aft") : pick(least, "aft")),
    beyond: least.beyond || way.beyond,
  }));
}

function pick(margin: EnvelopeMargin, side: "forward"): Pick<EnvelopeMargin, "forwardMm" | "forwardAt">;
function pick(margin: EnvelopeMargin, side: "aft"): Pick<EnvelopeMargin, "aftMm" | "aftAt">;
function pick(margin: EnvelopeMargin, side: "forward" | "aft") {
  return side === "forward"
    ? { forwardMm: margin.forwardMm, forwardAt: margin.forwardAt }
    : { aftMm: margin.aftMm, aftAt: margin.aftAt };
}

/** Name of the moment a mass occurs: a named one, or between two. */
function whenOf(points: readonly PathPoint[], at: MassMoment): string {
  const here = points.find(({ name, kg }) => name && name !== "start" && Math.abs(kg - at.kg) < 1e-3);
  if (here?.name) return here.name;
  const landing = points.find(({ name }) => name === "landing");
  return landing && at.kg < landing.kg ? "after the landing" : "on the way";
}
