import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { dropsOfWater, overnightCondensationMl } from "../../fuel/drain/overnight-condensation";
import { settlingMin } from "../../fuel/drain/settling";
import { fuelGrade } from "../../fuel/grade/fuel-grades";
import type { FuelResult } from "../../fuel/judge-fuel";
import type { Judgement } from "../../judgement/judgement";
import { tankKey } from "../../readings/reading-keys";
import { convert, isConvertible } from "../../units/convert";
import { formatNumber, formatQuantity } from "../../units/format";

import { approvedGrades } from "./fuel-input";

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
