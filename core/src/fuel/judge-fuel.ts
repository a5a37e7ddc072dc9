import { type Judgement, notAssessed, type Source } from "../judgement/judgement";
import { QuantityError } from "../units/convert";
import { formatQuantity } from "../units/format";
import { sumOfUncertain, type Uncertain } from "../units/uncertain";
import type { FuelUnit } from "./grade/fuel-amount";
import { fuelDensity } from "./grade/fuel-grades";
import { type FuelUnits, fuelUnits } from "./grade/fuel-text";
import { BURN_ERROR, type ExpectedFuel, type FuelEntry, fuelByLog } from "./log/fuel-log";
import { estimateFuel, type FuelEstimate, type FuelSource } from "./log/fuel-sources";
import { likelyCauses } from "./log/likely-causes";
import { enduranceMin, usableFuelL } from "./margin/endurance";
import { type Enough, type FuelPlan, fuelMargin } from "./margin/fuel-margin";
import { refuelPlan } from "./margin/refuel-plan";
import type { Tilt } from "./tanks/dip-corrected-for-tilt";
import { litresByReading, readingUnit, type Tank, type TankReading } from "./tanks/tank";

type SourcedValue = { value: number; source: Source };

export interface FuelProfile {
  tanks: Tank[];
  /** Start, taxi and run-up, litres. */
  taxiL: number;
  /** Extra fuel for the climb, compared with the same time in cruise, litres. */
  climbL?: number;
  burnLPerH?: SourcedValue;
  /** Fuel consumption by power setting; `burnLPerH` is the default. */
  settings?: { name: string; lPerH: number; source: Source }[];
  imbalanceL?: SourcedValue;
  /** Ids of approved grades; the usual one first. */
  grades?: string[];
  maxTakeoffKg?: SourcedValue;
}

/** Minutes that must remain on landing, and the rule that requires them. */
export interface FuelReserve {
  minutes: number;
  source: Source;
}

export interface TankSources {
  tank: Tank;
  sources: FuelSource[];
  estimate: FuelEstimate;
}

export interface FuelResult {
  /** Best estimate in litres for each tank that was inspected. */
  volumesL: Record<string, number>;
  tanks: TankSources[];
  /** All tanks together: dipstick, gauges, log. */
  total?: { sources: FuelSource[]; estimate: FuelEstimate };
  usableL?: number;
  enduranceMin?: number;
  /** Endurance less the reserve: minutes from take-off to land by. */
  onGroundWithinMin?: number;
  plan?: FuelPlan;
  enough?: Enough;
  judgements: Judgement[];
}

export interface FuelInput {
  profile: FuelProfile;
  readings: TankReading[];
  tilt?: Tilt;
  /** Expected fuel from the log, and the hour meter now. */
  log?: { expected: ExpectedFuel; hoursNow?: number; uplifts?: readonly FuelEntry[] };
  /** Unit for amounts and density of the fuel; default litres, and the usual grade at 15 °C. */
  unit?: FuelUnit;
  kgPerL?: number;
  /** Name of the power setting. */
  setting?: string;
  reserve: FuelReserve | undefined;
  plannedFlightMin: number | undefined;
}

/** Id of the endurance judgements. */
export const ENDURANCE = "fuel.endurance";
export const WORST_CASE = "fuel.worst";

const CAUTION =
  "Dip on level ground with the dipstick vertical. Trust a fuel gauge only when it shows empty.";
/** Relative standard deviations of the parts of a plan (common practice, example values). */
const TAXI_ERROR = 0.3;
const CLIMB_ERROR = 0.2;
const FLIGHT_ERROR = 0.1;

/**
 * Judges the fuel: litres from dipstick, gauges and log, whether they agree and which one differs; endurance, and whether it
 * covers flight and reserve by the best estimate and in the worst reasonable case; and lateral imbalance if the type limits it.
 * Valid range: each reading within its calibration; a bad reading becomes "unjudged" with its reason instead of an error. Every
 * tank must be inspected (dipstick, mark or sight glass; by gauge only if the tank has none of these) before an endurance is
 * given.
 * Sources: the profile's calibrations and consumption; the reserve's rule (for instance 14 CFR 91.151, from memory).
 */
export function judgeFuel(input: FuelInput): FuelResult {
  const { profile, readings, tilt } = input;
  const judgements: Judgement[] = [];
  const seen = new Map<string, FuelSource[]>();
  for (const reading of readings) {
    const tank = profile.tanks.find((t) => t.id === reading.tankId);
    if (!tank) continue;
    try {
      const litres = litresByReading(tank, reading, tilt);
      seen.set(tank.id, [...(seen.get(tank.id) ?? []), { kind: reading.by, litres }]);
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      const shown = { value: reading.value, unit: reading.unit ?? readingUnit(tank, reading.by) };
      judgements.push(notAssessed(`fuel.${tank.id}`, `Fuel, ${tank.name}`, error.message, shown));
    }
  }
  const byLog = logsWord(input, judgements);
  const tanks = profile.tanks.flatMap((tank): TankSources[] => {
    const own = seen.get(tank.id) ?? [];
    if (!own.some((w) => w.kind !== "gauge") && (lookedInto(tank) || own.length === 0)) return [];
    const log = byLog?.tanks[tank.id];
    const sources: FuelSource[] = [
      ...own,
      ...(log && log.sigma > 0 ? [{ kind: "log", litres: log } as const] : []),
    ];
    return [{ tank, sources, estimate: estimateFuel(sources) }];
  });
  const volumesL = Object.fromEntries(tanks.map(({ tank, estimate }) => [tank.id, estimate.litres.value]));
  const result: FuelResult = { volumesL, tanks, judgements };
  if (profile.tanks.length === 0 || tanks.length < profile.tanks.length) return result;

  const total = totalOf(tanks, byLog?.total);
  if (total) result.total = total;
  judgements.push(...agreement(input, total, tanks, byLog));
  const usable = sumOfUncertain(
    tanks.map(({ tank, estimate: { litres } }) => ({
      value: usableFuelL(Math.max(0, litres.value), tank.unusableL),
      sigma: litres.sigma,
    })),
  );
  result.usableL = usable.value;
  judgements.push(...imbalance(input, volumesL));
  judgements.push(...endurance(input, usable, result));
  return result;
}

const densityOf = ({ kgPerL, profile }: FuelInput) => kgPerL ?? fuelDensity(profile.grades?.[0] ?? "100LL");
const wordsOf = (input: FuelInput): FuelUnits => fuelUnits(input.unit ?? "L", densityOf(input));

const lookedInto = (tank: Tank) => Boolean(tank.calibration || tank.marks?.length || tank.sight);

function logsWord({ profile, log }: FuelInput, judgements: Judgement[]) {
  if (!log) return undefined;
  try {
    return fuelByLog(log.expected, log.hoursNow, profile.burnLPerH?.value, profile.taxiL);
  } catch (error) {
    if (!(error instanceof QuantityError)) throw error;
    judgements.push(notAssessed("fuel.log", "Fuel from the log", error.message));
    return undefined;
  }
}

function totalOf(tanks: readonly TankSources[], byLog: Uncertain | undefined): FuelResult["total"] {
  const each = (pick: (heard: TankSources) => FuelSource | undefined) => {
    const found = tanks.map(pick);
    return found.every((w) => w !== undefined) ? sumOfUncertain(found.map((w) => w.litres)) : undefined;
  };
  const looked = each(({ sources }) => sources.find((w) => w.kind !== "gauge" && w.kind !== "log"));
  const gauges = each(({ sources }) => sources.find((w) => w.kind === "gauge"));
  const sources: FuelSource[] = [];
  if (looked) sources.push({ kind: "dip", litres: looked });
  if (gauges) sources.push({ kind: "gauge", litres: gauges });
  if (byLog && byLog.sigma > 0) sources.push({ kind: "log", litres: byLog });
  return sources.length > 0 ? { sources, estimate: estimateFuel(sources) } : undefined;
}

const NAME: Record<string, string> = {
  dip: "dipstick",
  mark: "mark",
  sight: "sight glass",
  gauge: "gauge",
  log: "log",
};

/** "dipstick 128 L, gauge 120 L, log 131 L" */
export function sourcesText(sources: readonly FuelSource[], words: FuelUnits): string {
  return sources.map(({ kind, litres }) => `${NAME[kind]} ${words.say(litres.value)}`).join(", ");
}

/** Whether the sources agree, and which one differs. */
function agreement(
  input: FuelInput,
  total: FuelResult["total"],
  tanks: readonly TankSources[],
  byLog: ReturnType<typeof logsWord>,
): Judgement[] {
  if (!total || total.sources.length < 2) return [];
  const word = (kind: string) => total.sources.find((w) => w.kind === kind)?.litres;
  const [measured, logged] = [word("dip"), word("log")];
  const { log } = input;
  const words = wordsOf(input);
  const kgPerL = densityOf(input);
  const uplifts = log?.uplifts ?? log?.expected.uplifts ?? [];
  const upliftedL = uplifts.reduce((sum, u) => sum + u.litres, 0);
  const heard = (
    id: string,
    subject: string,
    estimate: FuelEstimate,
    sources: readonly FuelSource[],
    whole: boolean,
  ): Judgement => {
    const said = sourcesText(sources, words);
    const range = `${words.number(estimate.lowL)} to ${words.say(estimate.highL)}`;
    const reading = words.quantity(estimate.litres.value);
    if (estimate.agree)
      return {
        id,
        subject,
        scope: "day",
        grade: "within limits",
        reading,
        sentence: `${said}: they agree. Estimate ${range}.`,
      };
    const causes = likelyCauses({
      ...(estimate.odd && { odd: estimate.odd }),
      ...(whole && measured && logged && { measuredLessLogL: measured.value - logged.value }),
      ...(whole &&
        measured &&
        logged &&
        byLog &&
        uplifts.length > 0 && {
          measured,
          beforeUplifts: { value: Math.max(0, logged.value - upliftedL), sigma: logged.sigma },
          uplifts,
        }),
      kgPerL,
    });
    const odd = estimate.odd ? `the ${NAME[estimate.odd]} differs from the others` : "so the lowest is used";
    return {
      id,
      subject,
      scope: "day",
      grade: estimate.odd === "gauge" ? "watch" : "ask",
      reading,
      sentence: `${said}: they do not agree, ${odd}. Estimate ${range}.`,
      ...(causes.length > 0 && { action: `Likely: ${causes.join("; ")}.` }),
      caution: "The fuel on board does not match. Find out why before you fly.",
    };
  };
  const whole = heard("fuel.sources", "Dipstick, gauge and log", total.estimate, total.sources, true);
  // A single tank can disagree although the sum agrees: reported only if the sum has no disagreement.
  const single = total.estimate.agree
    ? tanks
        .filter(({ estimate }) => !estimate.agree)
        .map(({ tank, estimate, sources }) =>
          heard(`fuel.sources.${tank.id}`, `Dipstick, gauge and log, ${tank.name}`, estimate, sources, false),
        )
    : [];
  return [whole, ...single];
}

function imbalance(input: FuelInput, volumesL: Record<string, number>): Judgement[] {
  const { tanks, imbalanceL } = input.profile;
  const words = wordsOf(input);
  if (!imbalanceL) return [];
  const sides = tanks.filter((t) => t.side);
  const two = sides.length > 0 ? sides : tanks.length === 2 ? tanks : [];
  if (two.length < 2) return [];
  const left = two.filter((t, i) => (t.side ? t.side === "left" : i === 0));
  const sum = (of: readonly Tank[]) => of.reduce((total, t) => total + (volumesL[t.id] ?? 0), 0);
  const difference = Math.abs(sum(left) - sum(two.filter((t) => !left.includes(t))));
  const margin = imbalanceL.value - difference;
  const reading = words.quantity(difference);
  return [
    {
      id: "fuel.imbalance",
      subject: "Fuel imbalance",
      scope: "day",
      grade: margin >= 0 ? "within limits" : "ask",
      reading,
      limit: `at most ${words.say(imbalanceL.value)} between left and right`,
      margin: words.quantity(margin),
      source: imbalanceL.source,
      sentence: `${words.say(difference)} between left and right.`,
    },
  ];
}

const time = (value: number) => formatQuantity({ value, unit: "min" });

/**
 * Fuel consumption at the chosen power setting, else the default, in litres per hour with its source. Undefined if there is
 * neither.
 */
export function burnAt(profile: FuelProfile, setting: string | undefined): SourcedValue | undefined {
  const chosen = profile.settings?.find((s) => s.name === setting);
  return chosen ? { value: chosen.lPerH, source: chosen.source } : profile.burnLPerH;
}

/**
 * Fuel plan with uncertainties. Litres, litres per hour, minutes. Valid range: nothing negative, consumption above zero;
 * `assertPlan` throws QuantityError otherwise. Source: errors of taxi, climb, consumption and wind by common practice, given
 * beside each constant.
 */
export function fuelPlan(
  profile: FuelProfile,
  usable: Uncertain,
  burnLPerH: number,
  flightMin: number,
  reserveMin: number,
): FuelPlan {
  const climbL = profile.climbL ?? 0;
  return {
    usable,
    taxi: { value: profile.taxiL, sigma: TAXI_ERROR * profile.taxiL },
    climb: { value: climbL, sigma: CLIMB_ERROR * climbL },
    burn: { value: burnLPerH, sigma: BURN_ERROR * burnLPerH },
    flight: { value: flightMin, sigma: FLIGHT_ERROR * flightMin },
    reserveMin,
  };
}

function endurance(input: FuelInput, usable: Uncertain, result: FuelResult): Judgement[] {
  const { profile, reserve, plannedFlightMin, setting } = input;
  const words = wordsOf(input);
  const id = ENDURANCE;
  const subject = "Fuel for this flight";
  const burn = burnAt(profile, setting);
  if (!burn)
    return [
      notAssessed(
        id,
        subject,
        "No fuel consumption on file for this aircraft. Work out the endurance from its handbook.",
        words.quantity(usable.value),
      ),
    ];
  const climbL = profile.climbL ?? 0;
  const whole = enduranceMin({
    usableL: usable.value,
    taxiL: profile.taxiL + climbL,
    burnLPerH: burn.value,
  });
  result.enduranceMin = whole;
  const shown = { value: whole, unit: "min" } as const;
  if (!reserve)
    return [notAssessed(id, subject, "No reserve rule on file: the endurance is not assessed.", shown)];
  result.onGroundWithinMin = Math.max(0, whole - reserve.minutes);
  const parts = [
    `${words.say(usable.value)} usable`,
    `${words.say(profile.taxiL)} for taxi`,
    ...(climbL > 0 ? [`${words.say(climbL)} for the climb`] : []),
    `${words.say(burn.value)}/h`,
  ];
  const sum = `${parts.join(", ")}: ${time(whole)}`;
  if (plannedFlightMin === undefined)
    return [
      {
        ...notAssessed(id, subject, `${sum}. No flight time planned, so the margin is not assessed.`, shown),
        source: reserve.source,
      },
    ];
  result.plan = fuelPlan(profile, usable, burn.value, plannedFlightMin, reserve.minutes);
  result.enough = fuelMargin(result.plan);
  const { marginMin, worstMarginMin, worstMarginL } = result.enough;
  const best: Judgement = {
    id,
    subject,
    scope: "day",
    grade: marginMin >= 0 ? "within limits" : "stop",
    reading: shown,
    limit: `${time(plannedFlightMin)} flight + ${time(reserve.minutes)} reserve`,
    margin: { value: marginMin, unit: "min" },
    source: reserve.source,
    sentence:
      marginMin >= 0
        ? `${sum}, ${time(marginMin)} more than needed for flight and reserve.`
        : `${sum}, ${time(-marginMin)} short of flight and reserve.`,
    ...(marginMin < 0 && { action: addAtLeast(input, result.volumesL, (-marginMin / 60) * burn.value) }),
    caution: CAUTION,
  };
  const worst: Judgement = {
    id: WORST_CASE,
    subject: "Worst reasonable case",
    scope: "day",
    grade: worstMarginMin >= 0 || marginMin < 0 ? "within limits" : "watch",
    margin: { value: worstMarginMin, unit: "min" },
    source: { kind: "common practice", text: "19 of 20 cases are better than this", example: true },
    sentence:
      worstMarginMin >= 0
        ? `Even if dipstick, consumption, taxi and wind all go against you, ${time(worstMarginMin)} above the reserve remains.`
        : `If dipstick, consumption, taxi and wind all go against you, you use ${time(-worstMarginMin)} of the reserve.`,
    ...(worstMarginMin < 0 &&
      marginMin >= 0 && { action: addAtLeast(input, result.volumesL, -worstMarginL) }),
  };
  return marginMin < 0 ? [best] : [worst, best];
}

/** "Take on at least 12 L, the left tank first, or plan a shorter flight." */
function addAtLeast(input: FuelInput, volumesL: Record<string, number>, litres: number): string {
  const { profile } = input;
  const filling = refuelPlan({
    tanks: profile.tanks.map((tank) => ({
      ...tank,
      volumeL: Math.min(tank.capacityL, Math.max(0, volumesL[tank.id] ?? 0)),
    })),
    neededL: litres,
    ...(profile.imbalanceL && { imbalanceL: profile.imbalanceL.value }),
    kgPerL: densityOf(input),
    pump: { unit: "L", step: 1 },
  });
  const first = filling.steps[0]?.name;
  if (filling.missingL > 0) return "The tanks cannot hold enough fuel. Plan a shorter flight.";
  return `Add at least ${wordsOf(input).atLeast(litres)}${first && profile.tanks.length > 1 ? `, the ${first} first` : ""}, or plan a shorter flight.`;
}
