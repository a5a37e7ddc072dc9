import { reserveFor } from "../../aircraft/aircraft-type";
import type { Judgement } from "../../judgement/judgement";
import { checkLoad, type LoadCheck } from "../../mass-and-balance/check-load";
import { armOf } from "../../mass-and-balance/load-path";
import type { Burn, Load, LoadingProfile } from "../../mass-and-balance/loading-profile";
import { changesText, faultText } from "../../mass-and-balance/loading-text";
import { changesWithinLimits } from "../../mass-and-balance/two-changes";
import { formatNumber } from "../../units/format";
import type { Judge, JudgedPreflight } from "./judge";
import { fuelKgPerL } from "./judge-fluids";

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

/** Fuel burnt on this flight, assuming one hour if unplanned. */
export const burnOfPreflight = (
  { type, rules, conditions }: Pick<JudgedPreflight["list"], "type" | "rules" | "conditions">,
  { plannedFlightMin = USUAL_MIN }: Pick<JudgedPreflight["state"], "plannedFlightMin">,
): Burn => burnFor(type.fuel, plannedFlightMin, reserveFor(rules, conditions)?.minutes);

/** Minimum number of people on board: with passengers at least two. */
export const peopleOfPreflight = ({ conditions }: Pick<JudgedPreflight["list"], "conditions">): number =>
  conditions.includes("passengers") ? 2 : 1;

/**
 * Load of a preflight: planned seats and baggage, with the dipped fuel. Undefined without a plan, or until every tank is
 * inspected.
 */
export function loadOfPreflight({
  list,
  state,
  given,
}: JudgedPreflight): { load: Load; burn: Burn } | undefined {
  const { loading } = list;
  const planned = state.plannedLoad;
  if (!loading || !planned) return undefined;
  const dipped = given.fuel?.volumesL ?? {};
  if (loading.tanks.some(({ tank }) => dipped[tank] === undefined)) return undefined;
  return {
    load: {
      stations: planned.stations,
      litres: dipped,
      kgPerL: fuelKgPerL(list, state),
      people: peopleOfPreflight(list),
    },
    burn: burnOfPreflight(list, state),
  };
}

function loading(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  const loaded = loadOfPreflight(preflight);
  const profile = list.loading;
  if (!loaded || !profile) return [];
  const { load, burn } = loaded;
  const check = checkLoad(profile, load, burn);
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
    itemIds: preflight.itemsOf(["fuel.dip", "fuel.mark", "fuel.sight"]),
  };
  const otherwise = fuelThanPlanned(load, state.plannedLoad?.litres);
  // Too heavy without them is too heavy with them.
  if (check.missing.length > 0 && check.faults.length === 0)
    return [
      {
        ...base,
        grade: "ask",
        sentence: check.missing.join(" "),
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
