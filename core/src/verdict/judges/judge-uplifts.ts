import type { ComposedList } from "../../checklist/list/compose-list";
import type { UpliftSeen } from "../../checklist/stream/fluid-events";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { fuelGrade } from "../../fuel/grade/fuel-grades";
import type { FuelUnits } from "../../fuel/grade/fuel-text";
import { fuelByLog } from "../../fuel/log/fuel-log";
import { type Reconciled, reconcileUplift } from "../../fuel/log/reconcile-uplift";
import { litresByReading } from "../../fuel/tanks/tank";
import type { Judgement } from "../../judgement/judgement";
import { READING, TANK_LOOKS, type TankLook, tankKey } from "../../readings/reading-keys";
import { QuantityError, valueIn } from "../../units/convert";
import { formatNumber, type Quantity } from "../../units/format";

import { approvedGrades, densityOf, wordsOfWalk } from "./fuel-input";

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

/** Cause for an unapproved fuel, in a sample or on a receipt. */
export const WRONG_FUEL = "fuel.wrong-kind";

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
