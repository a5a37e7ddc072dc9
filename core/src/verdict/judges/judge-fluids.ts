import type { ComposedList } from "../../checklist/list/compose-list";
import type { FuelSampleTaken, UpliftSeen } from "../../checklist/stream/fluid-events";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { drainAdvice } from "../../fuel/drain/drain-protocol";
import { judgeSample } from "../../fuel/drain/fuel-sample";
import { dropsOfWater, overnightCondensationMl } from "../../fuel/drain/overnight-condensation";
import { settlingMin } from "../../fuel/drain/settling";
import { litresOfFuel } from "../../fuel/grade/fuel-amount";
import { fuelDensity, fuelGrade } from "../../fuel/grade/fuel-grades";
import { type FuelUnits, fuelUnits } from "../../fuel/grade/fuel-text";
import type { FuelInput, FuelResult } from "../../fuel/judge-fuel";
import { type FuelEntry, fuelByLog } from "../../fuel/log/fuel-log";
import { type Reconciled, reconcileUplift } from "../../fuel/log/reconcile-uplift";
import { litresByReading, type TankReading } from "../../fuel/tanks/tank";
import type { Judgement } from "../../judgement/judgement";
import type { FluidMemory } from "../../memory/fluid-memory";
import { oilAdditionFault } from "../../oil/judge-oil";
import { compareOilUse, judgeOilUse } from "../../oil/judge-oil-use";
import { ONLY_ENGINE, READING, TANK_LOOKS, type TankLook, tankKey } from "../../readings/reading-keys";
import { reserveFor } from "../../rules/rule-set";
import { convert, isConvertible, QuantityError, valueIn } from "../../units/convert";
import { formatNumber, formatQuantity, type Quantity } from "../../units/format";

/** Assumed grade of a type without any on file (own choice: the most common one). */
const USUAL_GRADE = "100LL";

export function approvedGrades(list: Pick<ComposedList, "type">): string[] {
  return list.type.fuel?.grades ?? [USUAL_GRADE];
}

/** Density of the usual grade at today's temperature, kg per litre. Source: beside each grade. */
export function fuelKgPerL(list: Pick<ComposedList, "type">, state: PreflightState): number {
  return fuelDensity(
    approvedGrades(list)[0] ?? USUAL_GRADE,
    Math.min(50, Math.max(-40, state.celsius ?? 15)),
  );
}

/** Formatter of fuel amounts for this preflight. */
export function wordsOfWalk(list: Pick<ComposedList, "type">, state: PreflightState): FuelUnits {
  return fuelUnits(state.told.unit ?? "L", fuelKgPerL(list, state));
}

/** Input for judging fuel: tank readings, the log, and the pilot's inputs. */
export function fuelInput(
  list: ComposedList,
  state: PreflightState,
  usable: (key: string) => Quantity | undefined,
): FuelInput | undefined {
  const { fuel: profile } = list.type;
  if (!profile) return undefined;
  const readings = profile.tanks.flatMap((tank) =>
    TANK_LOOKS.flatMap((by): TankReading[] => {
      const seen = usable(tankKey(by, tank.id));
      return seen ? [{ tankId: tank.id, by, ...seen }] : [];
    }),
  );
  const meter = usable(READING.hours);
  const hoursNow = meter && valueIn("The hour meter", meter, "h");
  const uplifts = upliftEntries(list, state);
  const expected = list.memory?.fuel && withUplifts(list.memory.fuel, uplifts);
  const { tilt, setting, unit } = state.told;
  return {
    profile,
    readings,
    ...(tilt && { tilt }),
    ...(setting && { setting }),
    ...(unit && { unit }),
    kgPerL: fuelKgPerL(list, state),
    ...(expected && {
      log: {
        expected,
        uplifts: expected.uplifts,
        ...(hoursNow !== undefined && { hoursNow }),
      },
    }),
    reserve: reserveFor(list.rules, list.conditions),
    plannedFlightMin: state.plannedFlightMin,
  };
}

/** Density of a grade; of the usual one if unknown. */
function densityOf(list: ComposedList, grade: string | undefined): number {
  return fuelDensity(grade && fuelGrade(grade) ? grade : (approvedGrades(list)[0] ?? USUAL_GRADE));
}

/** Uplifts of this preflight as log entries. */
export function upliftEntries(list: ComposedList, state: PreflightState): FuelEntry[] {
  return state.uplifts.map(({ at, tankId, amount, unit, grade, receipt }) => ({
    at,
    entry: "uplift",
    amount,
    unit,
    litres: litresOfFuel(amount, unit, densityOf(list, grade)),
    ...(tankId && { tankId }),
    ...(grade && { grade }),
    ...(receipt && { receipt }),
  }));
}

function withUplifts(
  expected: NonNullable<FluidMemory["fuel"]>,
  uplifts: readonly FuelEntry[],
): NonNullable<FluidMemory["fuel"]> {
  const ids = Object.keys(expected.tanks);
  const tanks = Object.fromEntries(
    Object.entries(expected.tanks).map(([id, { value, sigma }]) => [
      id,
      {
        value: uplifts.reduce(
          (sum, u) => sum + (u.tankId === id ? u.litres : u.tankId === undefined ? u.litres / ids.length : 0),
          value,
        ),
        sigma,
      },
    ]),
  );
  return { ...expected, tanks, uplifts: [...expected.uplifts, ...uplifts] };
}

/** Comparison of a receipt with measurements before and after it. */
export interface UpliftChecked {
  uplift: UpliftSeen;
  reconciled?: Reconciled;
  /** Why it cannot be checked yet, or at all. */
  open?: string;
}

/**
 * Compares each uplift of this preflight with the dipstick before and after. Before it, a dip of this preflight counts, else the
 * log; two uplifts into one tank without a dip between cannot be separated, which is reported.
 */
export function checkUplifts(list: ComposedList, state: PreflightState): UpliftChecked[] {
  const { fuel: profile } = list.type;
  if (!profile) return [];
  // A meter that went back, or a dip beyond the dipstick, is reported elsewhere and skipped here.
  const tried = <T>(make: () => T): T | undefined => {
    try {
      return make();
    } catch (error) {
      if (error instanceof QuantityError) return undefined;
      throw error;
    }
  };
  const meter = state.readings[READING.hours];
  const byLog = tried(
    () =>
      list.memory?.fuel &&
      fuelByLog(
        list.memory.fuel,
        meter && valueIn("The hour meter", meter, "h"),
        profile.burnLPerH?.value,
        profile.taxiL,
      ),
  );
  return state.uplifts.map((uplift, i): UpliftChecked => {
    const { tankId } = uplift;
    const tank = profile.tanks.find((t) => t.id === tankId);
    if (!tank) return { uplift, open: "Fuel was added to several tanks, so one tank's dip cannot check it." };
    const dipped = ({ before }: UpliftSeen) =>
      TANK_LOOKS.some((by) => by !== "gauge" && before[tankKey(by, tank.id)] !== undefined);
    const later = state.uplifts.slice(i + 1).filter((other) => !other.tankId || other.tankId === tankId);
    if (later.some((other) => !dipped(other)))
      return { uplift, open: `Two uplifts into the ${tank.name} without a dip between them.` };
    const [next] = later;
    const look = (readings: (by: TankLook) => Quantity | undefined) => {
      for (const by of TANK_LOOKS.filter((b) => b !== "gauge")) {
        const seen = readings(by);
        if (seen)
          return tried(() =>
            litresByReading(
              tank,
              { tankId: tank.id, by, value: seen.value, unit: seen.unit },
              state.told.tilt,
            ),
          );
      }
      return undefined;
    };
    const before = look((by) => uplift.before[tankKey(by, tank.id)]) ?? byLog?.tanks[tank.id];
    const after = look((by) =>
      next ? next.before[tankKey(by, tank.id)] : state.readings[tankKey(by, tank.id)],
    );
    if (!before) return { uplift, open: `The ${tank.name} was not dipped before refuelling.` };
    if (!after) return { uplift, open: `Dip the ${tank.name} now to check the receipt.` };
    return {
      uplift,
      reconciled: reconcileUplift(before, after, uplift, densityOf(list, uplift.grade)),
    };
  });
}

/**
 * Judges each receipt of this preflight against measurements and approved grades. Litres. Source: normalised difference, JCGM
 * 100:2008 (from memory).
 */
export function judgeUplifts(list: ComposedList, state: PreflightState): Judgement[] {
  return checkUplifts(list, state).flatMap(judgeUplift(list, wordsOfWalk(list, state)));
}

/**
 * Judges the fuel samples, drain by drain. Source: appearance of samples, FAA-H-8083-3 (from memory); three samples or a minute
 * by common practice.
 */
export function judgeDrains(list: ComposedList, state: PreflightState): Judgement[] {
  const approved = approvedGrades(list);
  const drains = list.items.filter((item) => item.kind === "sample");
  return drains.flatMap((item): Judgement[] => {
    const taken = state.samples[item.id] ?? [];
    const last = taken.at(-1);
    if (!last) return [];
    const own = { id: `fuel.sample.${item.id}`, subject: item.title, itemIds: [item.id] };
    const base = { ...own, scope: "day" as const };
    const judged = judgeSample(last, approved);
    const { before, since } = aroundRocking(taken, state.rocked?.at);
    const advice = drainAdvice(before, since, state.rocked !== undefined, approved);
    if (advice.step === "maintenance")
      return [
        {
          ...own,
          scope: "aircraft",
          cause: judged.outcome === "finding" ? WRONG_FUEL : WILL_NOT_CLEAR,
          grade: "stop",
          sentence: advice.why,
          action: advice.words,
        },
      ];
    if (judged.outcome === "finding")
      return [
        {
          ...own,
          // It cannot be drained away, so it concerns the next pilot too.
          scope: "aircraft",
          cause: WRONG_FUEL,
          grade: judged.grade === "within limits" ? "ask" : judged.grade,
          sentence: judged.sentence,
          action: judged.action,
        },
      ];
    if (judged.outcome === "drain")
      return [
        {
          ...base,
          grade: judged.grade === "within limits" ? "ask" : judged.grade,
          sentence: judged.sentence,
          action: judged.action,
        },
      ];
    if (judged.outcome === "other grade")
      return [{ ...base, grade: "note", sentence: judged.sentence, action: judged.action }];
    const dirty = taken.filter((sample) => judgeSample(sample, approved).outcome === "drain");
    if (dirty.length === 0) return [];
    return [
      {
        ...base,
        grade: "watch",
        sentence: `${dirty[0]?.look === "grit" ? "Grit" : "Water"} found, clean at sample ${taken.length}.`,
        action: "Drain once more before boarding, and look for the source: cap, seal or the last fuel added.",
      },
    ];
  });
}

/** Cause for an unapproved fuel, in a sample or on a receipt. */
export const WRONG_FUEL = "fuel.wrong-kind";
/** Cause for water that keeps coming, at any drain. */
const WILL_NOT_CLEAR = "fuel.water";

/** Judgement texts for an unapproved grade. */
export function wrongGrade(grade: string, approved: readonly string[]) {
  return {
    grade: "stop" as const,
    sentence: `${fuelGrade(grade)?.name ?? grade} was added, but this aircraft is approved only for ${approved.join(", ")}.`,
    action: "Do not start the engine. The tank must be emptied.",
  };
}

/**
 * Judges uplifts outside a preflight since the last measurement: an unapproved grade counts equally. The amount is part of the
 * log.
 */
export function judgeEarlierUplifts(list: ComposedList): Judgement[] {
  const approved = approvedGrades(list);
  return (list.memory?.fuel?.uplifts ?? []).flatMap(({ grade, at, receipt }): Judgement[] =>
    grade && !approved.includes(grade)
      ? [
          {
            id: `fuel.uplift.${at}.grade`,
            cause: WRONG_FUEL,
            subject: `Refuelled ${at.slice(0, 10)}${receipt ? `, receipt ${receipt}` : ""}`,
            scope: "aircraft",
            ...wrongGrade(grade, approved),
          },
        ]
      : [],
  );
}

/** Samples from before the wings were rocked, and those since. */
export function aroundRocking(taken: readonly FuelSampleTaken[], rockedAt: string | undefined) {
  if (rockedAt === undefined) return { before: [], since: taken };
  return {
    before: taken.filter((sample) => sample.at <= rockedAt),
    since: taken.filter((sample) => sample.at > rockedAt),
  };
}

const judgeUplift =
  (list: ComposedList, words: FuelUnits) =>
  ({ uplift, reconciled }: UpliftChecked): Judgement[] => {
    const tank = list.type.fuel?.tanks.find((t) => t.id === uplift.tankId);
    const itemIds = list.items
      .filter((i) => i.reading && tank && TANK_LOOKS.some((by) => i.reading?.key === tankKey(by, tank.id)))
      .map((i) => i.id);
    const base = {
      id: `fuel.uplift.${uplift.eventId}`,
      subject: `Receipt${uplift.receipt ? ` ${uplift.receipt}` : ""}`,
      scope: "day" as const,
      itemIds,
    };
    const made: Judgement[] = [];
    if (uplift.grade && !approvedGrades(list).includes(uplift.grade))
      made.push({
        ...base,
        id: `${base.id}.grade`,
        scope: "aircraft",
        cause: WRONG_FUEL,
        ...wrongGrade(uplift.grade, approvedGrades(list)),
      });
    if (!reconciled) return made;
    const { agrees, measuredL, receiptL, instead } = reconciled;
    const says = `The receipt says ${formatNumber(uplift.amount, 1)} ${uplift.unit}${uplift.unit === words.unit ? "" : `, ${words.say(receiptL)}`}; by the dipstick the ${tank?.name ?? "tank"} took ${words.say(measuredL)}`;
    made.push(
      agrees
        ? { ...base, grade: "within limits", sentence: `${says}: they agree.` }
        : {
            ...base,
            grade: "ask",
            sentence: `${says}: they do not agree.`,
            action: instead[0]
              ? `Likely: ${instead.map((s) => s.why).join("; or ")}. Use the dipstick and have the receipt corrected.`
              : "Dip again. If they still disagree, ask at the pump before you fly: the fuel, the receipt or the tank may be the wrong one.",
          },
    );
    return made;
  };

/**
 * Start and duration, in minutes, of the settling time after the last refuelling, by the deepest dipped tank of this preflight,
 * or the tank's full depth before it is dipped again. Undefined without an uplift in this preflight. Source: beside the constants
 * (common practice).
 */
export function settling(
  list: ComposedList,
  state: PreflightState,
): { since: string; neededMin: number } | undefined {
  const last = state.uplifts.at(-1);
  if (!last) return undefined;
  const depths = (list.type.fuel?.tanks ?? []).map((tank) => {
    const dip = state.readings[tankKey("dip", tank.id)];
    const cm = dip && isConvertible(dip.unit, "cm") ? convert(dip.value, dip.unit, "cm") : undefined;
    return cm ?? tank.calibration?.points.at(-1)?.dipCm ?? 0;
  });
  const kerosene = fuelGrade(approvedGrades(list)[0] ?? "")?.kerosene === true;
  return { since: last.at, neededMin: settlingMin(Math.max(0, ...depths), kerosene) };
}

/** Judges the settling time: a sample taken too soon may miss water. */
export function judgeSettling(list: ComposedList, state: PreflightState): Judgement[] {
  const sinking = settling(list, state);
  const taken = Object.values(state.samples).flat();
  if (!sinking || taken.length === 0) return [];
  const needed = sinking.neededMin;
  const settledAt = Date.parse(sinking.since) + needed * 60_000;
  // The newest sample of each drain counts.
  const early = Object.values(state.samples).flatMap((samples) => {
    const last = samples.at(-1);
    return last && Date.parse(last.at) < settledAt ? [last] : [];
  });
  if (early.length === 0) return [];
  const waited = Math.min(...early.map(({ at }) => (Date.parse(at) - Date.parse(sinking.since)) / 60_000));
  const leftMin = Math.ceil((settledAt - Date.parse(state.lastAt ?? sinking.since)) / 60_000);
  const minutes = (value: number) => formatQuantity({ value, unit: "min" });
  return [
    {
      id: "fuel.settling",
      subject: "Drained after refuelling",
      scope: "day",
      grade: "stop",
      reading: { value: Math.max(0, waited), unit: "min" },
      limit: `about ${minutes(needed)} for this depth`,
      source: {
        kind: "common practice",
        text: "15 minutes for each foot of fuel depth",
        example: true,
      },
      sentence:
        waited < 0
          ? "The clock was set back after refuelling, so the settling time is not known."
          : "Samples were taken before water stirred up by refuelling had settled.",
      action:
        leftMin > 0 && waited >= 0
          ? `Sample these drains again in ${minutes(leftMin)}.`
          : "Sample these drains again now.",
      itemIds: [...new Set(early.map((s) => s.itemId))],
    },
  ];
}

/** Judges a device clock that is behind the log's last entry. Never throws: a clock that went back is reported. */
export function judgeClock(list: ComposedList, state: PreflightState): Judgement[] {
  const last = [list.memory?.hours?.at, list.memory?.fuel?.since].reduce(
    (late, at) => (at !== undefined && (late === undefined || at > late) ? at : late),
    undefined,
  );
  if (!last || !state.startedAt || state.startedAt >= last) return [];
  return [
    {
      id: "clock",
      subject: "Device clock",
      scope: "day",
      grade: "ask",
      sentence: `This device shows ${state.startedAt.slice(0, 16).replace("T", " ")}, but the last log entry is ${last.slice(0, 16).replace("T", " ")}.`,
      action: "Set the clock. Until then the order of fuel and flights is not certain.",
    },
  ];
}

/**
 * Judges overnight condensation per tank, as a reason to drain again, and reports water beyond it. Millilitres. Source: water
 * vapour as in `overnightCondensationMl`; an upper bound.
 */
export function judgeNight(state: PreflightState, fuel: FuelResult | undefined): Judgement[] {
  const { night } = state.told;
  if (!night || !fuel || fuel.tanks.length === 0) return [];
  const each = fuel.tanks.map(({ tank, estimate }) => ({
    tank,
    ml: overnightCondensationMl(Math.max(0, tank.capacityL - estimate.litres.value), night),
  }));
  const most = each.reduce((a, b) => (b.ml > a.ml ? b : a));
  const drops = dropsOfWater(most.ml);
  const base = { id: "fuel.night", subject: "Overnight condensation", scope: "day" as const };
  if (drops < 1)
    return [
      {
        ...base,
        grade: "within limits",
        sentence: "The air stayed above its dew point: no condensation.",
      },
    ];
  const cups = [...state.earlierSamples, ...Object.values(state.samples).flat()];
  const found = cups.some((s) => s.look === "water");
  return [
    {
      ...base,
      grade: "note",
      sentence: `At most ${formatNumber(most.ml, 1)} ml of condensation, about ${drops} ${drops === 1 ? "drop" : "drops"}, in the ${most.tank.name}.`,
      action: found
        ? "More water than this is not condensation: check the cap, its seal and the last fuel added."
        : "Sample the lowest drains again.",
    },
  ];
}

/**
 * Judges added oil that should not have been: another grade, an opened container, too much. It is on record and leads to "ask".
 * Quarts. Source: the type's maximum and grades; unopened containers by common practice.
 */
export function judgeOilAdded(list: ComposedList, state: PreflightState): Judgement[] {
  const { oil } = list.type;
  return state.oilAdded.flatMap(({ eventId, qt, grade, sealed, engine, before }): Judgement[] => {
    const beforeQt =
      before && isConvertible(before.unit, "US qt") ? convert(before.value, before.unit, "US qt") : undefined;
    const against = oilAdditionFault({ qt, sealed, ...(grade && { grade }) }, oil, beforeQt);
    if (!against) return [];
    return [
      {
        id: `oil.added.${eventId}`,
        subject: engine ? `Oil added, ${engine} engine` : "Oil added",
        // It stays in the engine whether anyone flies or not.
        scope: "aircraft",
        grade: "ask",
        sentence: against,
        action: "The oil is already in. Ask the mechanic before engine start.",
      },
    ];
  });
}

/** Judges oil consumption by the log, and compares a twin's engines. */
export function judgeOilLog(
  list: ComposedList,
  levels: Record<string, number>,
  hoursNow: number | undefined,
  addedQt: Record<string, number>,
): Judgement[] {
  const { oil } = list.type;
  const memory = list.memory?.oil;
  if (!oil || !memory) return [];
  const made = Object.entries(levels).flatMap(([engine, levelQt]): Judgement[] => {
    const own = memory[engine];
    if (!own) return [];
    const last = own.last;
    const since =
      last && hoursNow !== undefined && hoursNow > last.hours
        ? {
            hours: hoursNow - last.hours,
            usedQt: last.levelQt + last.addedQt + (addedQt[engine] ?? 0) - levelQt,
          }
        : undefined;
    const judged = judgeOilUse(own, levelQt, oil.minimumQt, since);
    if (!judged) return [];
    return engine === ONLY_ENGINE
      ? [judged]
      : [{ ...judged, id: `${judged.id}.${engine}`, subject: `${judged.subject}, ${engine} engine` }];
  });
  const [left, right] = ["left", "right"].map((engine) => memory[engine]);
  const sides =
    left && right && levels.left !== undefined && levels.right !== undefined && compareOilUse(left, right);
  return sides ? [...made, sides] : made;
}

/** Message of a QuantityError; other errors are rethrown as program faults. */
export function quantityError(make: () => unknown): string | undefined {
  try {
    make();
    return undefined;
  } catch (error) {
    if (error instanceof QuantityError) return error.message;
    throw error;
  }
}
