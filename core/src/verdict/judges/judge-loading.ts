import type { Condition } from "../../aircraft/aircraft-type";
import { type Judgement, notAssessed } from "../../judgement/judgement";
import { checkLoad, type LoadCheck } from "../../mass-and-balance/check-load";
import { armOf } from "../../mass-and-balance/load-path";
import type { Burn, Load, LoadingProfile } from "../../mass-and-balance/loading-profile";
import { changesText, faultText } from "../../mass-and-balance/loading-text";
import { changesWithinLimits } from "../../mass-and-balance/two-changes";
import { type MinimaSet, strictest } from "../../minima/minima";
import { type RuleSet, reserveFor } from "../../rules/rule-set";
import { formatNumber } from "../../units/format";
import { fuelKgPerL } from "./fuel-input";
import type { Judge, JudgedPreflight } from "./judge";

/** Assumed minutes of a flight without a planned length. */
const USUAL_MIN = 60;

/**
 * Fuel burnt before take-off, during a flight of this length, and in the reserve, by the handbook's cruise consumption; zero
 * without an engine.
 */
export function burnFor(
  fuel: { taxiL: number; climbL?: number; burnLPerH?: { value: number } } | undefined,
  minutes: number,
  reserveMin = 0,
): Burn {
  const perMin = (fuel?.burnLPerH?.value ?? 0) / 60;
  return {
    taxiL: fuel?.taxiL ?? 0,
    tripL: (fuel?.climbL ?? 0) + perMin * minutes,
    reserveL: perMin * reserveMin,
  };
}

/** Fuel burnt on this flight, assuming one hour if unplanned, with the greatest of the reserves of the rules and the pilot. */
export const burnOfPreflight = (
  {
    type,
    rules,
    conditions,
    minima = [],
  }: Pick<JudgedPreflight["list"], "type" | "rules" | "conditions" | "minima">,
  { plannedFlightMin = USUAL_MIN }: Pick<JudgedPreflight["state"], "plannedFlightMin">,
): Burn => burnFor(type.fuel, plannedFlightMin, reserveMinutes(rules, conditions, minima));

/** Minutes of fuel that must remain on landing: by the rules, or by a stricter limit of a person. */
export const reserveMinutes = (
  rules: RuleSet | undefined,
  conditions: readonly Condition[],
  minima: readonly MinimaSet[],
): number =>
  Math.max(reserveFor(rules, conditions)?.minutes ?? 0, strictest(minima, "reserveMin")?.value ?? 0);

/** Minimum number of people on board: with passengers at least two. */
export const peopleOfPreflight = ({ conditions }: Pick<JudgedPreflight["list"], "conditions">): number =>
  conditions.includes("passengers") ? 2 : 1;

/** Seats whose loads are read on the walk, by the place of the seat in the file: the pilot's first. */
const SEAT_READINGS = ["mass.front", "mass.rear"] as const;

/** Masses read at the aircraft: a glider's seats. */
function seatsRead({ list, value }: JudgedPreflight): Record<string, number> {
  const seats = (list.loading?.stations ?? []).filter(({ kind }) => kind === "seat");
  const ordered = [...seats].sort((a, b) => Number(b.pilot ?? false) - Number(a.pilot ?? false));
  return Object.fromEntries(
    SEAT_READINGS.flatMap((key, i) => {
      const seat = ordered[i];
      const kg = value(key);
      return seat && kg !== undefined ? [[seat.id, kg]] : [];
    }),
  );
}

/** True if this aircraft's seat loads are asked at the aircraft. */
const readsSeats = ({ itemsOf }: JudgedPreflight): boolean => itemsOf([...SEAT_READINGS]).length > 0;

/** Load of a preflight, or why it is not known. */
export type KnownLoad = { load: Load; burn: Burn } | { why: string };

/**
 * Load of a preflight: seats as read at the aircraft, else as planned, with planned baggage and the measured fuel. Nothing is
 * assumed: what is missing is the reason.
 */
export function knownLoad(preflight: JudgedPreflight): KnownLoad {
  const { list, state, given } = preflight;
  const { loading } = list;
  const planned = state.plannedLoad;
  if (!loading) return { why: "no weighing report and no loading limits are on file for this aircraft" };
  const read = seatsRead(preflight);
  const seats = loading.stations.filter(({ kind }) => kind === "seat");
  const asked = readsSeats(preflight);
  const allRead = asked && seats.every(({ id }) => read[id] !== undefined);
  if (!planned && !allRead)
    return { why: asked ? "the seat loads are not entered" : "the load on board is not entered" };
  const dipped = given.fuel?.volumesL ?? {};
  if (loading.tanks.some(({ tank }) => dipped[tank] === undefined))
    return { why: "the fuel in the tanks is not measured" };
  const stations = { ...planned?.stations, ...read };
  return {
    load: {
      stations,
      litres: dipped,
      kgPerL: fuelKgPerL(list, state),
      people: peopleOfPreflight(list),
    },
    burn: burnOfPreflight(list, state),
  };
}

/** As `knownLoad`; undefined if it is not known. */
export function loadOfPreflight(preflight: JudgedPreflight): { load: Load; burn: Burn } | undefined {
  const known = knownLoad(preflight);
  return "why" in known ? undefined : known;
}

const notLoaded = (why: string, itemIds: string[]): Judgement => ({
  ...notAssessed("unknown.loading", "Mass and balance", `Not checked: ${why}.`),
  cause: "unknown.loading",
  itemIds,
  action: "Enter the load.",
});

function loading(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  const loaded = knownLoad(preflight);
  const profile = list.loading;
  const itemIds = preflight.itemsOf(["fuel.dip", "fuel.mark", "fuel.sight", ...SEAT_READINGS]);
  if ("why" in loaded || !profile) return [notLoaded("why" in loaded ? loaded.why : "", itemIds)];
  const { load, burn } = loaded;
  const check = checkLoad(profile, load, burn);
  const ballast = ballastUnknown(profile, load, burn, check);
  if (ballast) return [notLoaded(ballast, itemIds)];
  const takeOff = check.points.find(({ name }) => name === "take-off");
  const [way] = changesWithinLimits(profile, load, burn, 1);
  const base = {
    id: "mass.balance",
    cause: "mass.balance",
    scope: "day" as const,
    subject: "Mass and balance",
    reading: { value: takeOff?.kg ?? 0, unit: "kg" as const },
    limit: `at most ${formatNumber(profile.maxTakeoffKg.value)} kg, CG within the envelope throughout the flight`,
    source: check.faults.some(({ mm }) => mm !== undefined)
      ? profile.envelope.source
      : profile.maxTakeoffKg.source,
    itemIds,
  };
  const otherwise = fuelThanPlanned(load, state.plannedLoad?.litres);
  // Too heavy without them is too heavy with them.
  if (check.missing.length > 0 && check.faults.length === 0)
    return [
      {
        ...base,
        cause: "unknown.loading",
        grade: "unjudged",
        sentence: `Not checked: ${check.missing.join(" ")}`,
        action: "Enter it under “Change the load”.",
        caution: "The aircraft's own weighing report and handbook come first.",
      },
    ];
  if (check.faults.length === 0)
    return [
      {
        ...base,
        grade: "within limits",
        margin: { value: profile.maxTakeoffKg.value - (takeOff?.kg ?? 0), unit: "kg" },
        sentence: [envelopeText(check, profile), otherwise].filter(Boolean).join(" "),
      },
    ];
  return [
    {
      ...base,
      grade: "stop",
      margin: { value: profile.maxTakeoffKg.value - (takeOff?.kg ?? 0), unit: "kg" },
      sentence: [otherwise, ...check.faults.map(faultText), ...check.missing].filter(Boolean).join(" "),
      action: way ? changesText(way, profile) : "No two changes bring it within limits. Plan the load again.",
      caution: "The aircraft's own weighing report and handbook come first.",
    },
  ];
}

/** Why ballast that nobody entered decides: with none the load is within limits and with all of it not, or the reverse. */
function ballastUnknown(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  without: LoadCheck,
): string | undefined {
  const places = profile.stations.filter(
    ({ id, kind }) => kind === "ballast" && load.stations[id] === undefined,
  );
  if (places.length === 0) return undefined;
  const full = Object.fromEntries(places.map(({ id, maxKg = 0 }) => [id, maxKg]));
  const withAll = checkLoad(profile, { ...load, stations: { ...load.stations, ...full } }, burn);
  return withAll.faults.length > 0 === without.faults.length > 0
    ? undefined
    : `the ballast is not entered (${places.map(({ name }) => name).join(", ")}), and the result depends on it`;
}

function envelopeText({ points, margin }: LoadCheck, profile: LoadingProfile): string {
  const takeOff = points.find(({ name }) => name === "take-off");
  if (!takeOff) return "";
  const room = profile.maxTakeoffKg.value - takeOff.kg;
  const nearest = Math.min(margin.forwardMm, margin.aftMm);
  return `${formatNumber(takeOff.kg)} kg at take-off, CG ${formatNumber(armOf(takeOff))} mm: ${formatNumber(room)} kg below the maximum and, down to zero fuel, at least ${formatNumber(nearest)} mm ${margin.forwardMm < margin.aftMm ? "aft of the forward limit" : "forward of the aft limit"}.`;
}

/** Minimum difference between dipped and planned fuel worth mentioning. */
const WORTH_SAYING_L = 5;

function fuelThanPlanned(
  { litres }: Load,
  planned: Readonly<Record<string, number>> | undefined,
): string | undefined {
  if (!planned) return undefined;
  const sum = (all: Readonly<Record<string, number>>) => Object.values(all).reduce((a, b) => a + b, 0);
  const more = sum(litres) - sum(planned);
  if (Math.abs(more) < WORTH_SAYING_L) return undefined;
  return `${formatNumber(Math.abs(more))} L ${more > 0 ? "more" : "less"} fuel than planned.`;
}

/** Mass and balance judges. */
export const LOADING_JUDGES: readonly Judge[] = [
  { id: "loading", subject: "Mass and balance", topic: "mass", needs: ["fuel"], judge: loading },
];
