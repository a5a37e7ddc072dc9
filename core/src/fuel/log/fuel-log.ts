import { assertNotNegative, QuantityError } from "../../units/convert";
import { sumOfUncertain, type Uncertain } from "../../units/uncertain";
import type { FuelUnit } from "../grade/fuel-amount";
import type { Tank } from "../tanks/tank";

/** One entry of an aircraft's fuel log. */
export interface FuelEntry {
  /** ISO 8601, UTC. */
  at: string;
  /** A measured content, an uplift, or fuel burnt. */
  entry: "measured" | "uplift" | "burn";
  /** Absent: all tanks together, shared evenly. */
  tankId?: string;
  litres: number;
  /** As logged. */
  amount: number;
  unit: FuelUnit;
  /** Hour meter at the time. */
  hours?: number;
  grade?: string;
  receipt?: string;
}

/** Expected content of each tank according to the log. */
export interface ExpectedFuel {
  /** Hour meter at the last measurement. */
  hours?: number;
  /** Time of the earliest of the tanks' last measurements. */
  since: string;
  /** Measured content plus uplifts less logged burn since; burn by the hour meter is not yet subtracted. */
  tanks: Record<string, Uncertain>;
  /** Uplifts since, for finding errors. */
  uplifts: FuelEntry[];
  /** Litres logged as burnt since; then the hour meter is not used. */
  burntL: number;
}

/** Relative errors of logged figures: burn by the book, an uplift by the pump, uneven use of two tanks (common practice). */
export const BURN_ERROR = 0.08;
const UPLIFT_ERROR = 0.005;
const SHARE_ERROR = 0.1;

/**
 * Expected fuel in the tanks: last measurement plus uplifts less logged burn. Undefined if a tank was never measured: then the
 * log is not used.
 * Valid range: litres ≥ 0 in every entry; a negative burn or uplift throws QuantityError. Source: bookkeeping; errors add by JCGM
 * 100:2008.
 */
export function expectedFuel(
  tanks: readonly Pick<Tank, "id" | "capacityL">[],
  entries: readonly FuelEntry[],
): ExpectedFuel | undefined {
  const ordered = [...entries].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  for (const { entry, litres } of ordered)
    assertNotNegative(
      entry === "burn" ? "A burn" : entry === "uplift" ? "An uplift" : "A measured amount",
      litres,
    );
  const last = tanks.map((tank) => ordered.findLast((e) => e.entry === "measured" && e.tankId === tank.id));
  if (tanks.length === 0 || last.some((entry) => !entry)) return undefined;
  const since = last.reduce((first, entry) => (entry && entry.at < first ? entry.at : first), "9");
  const hours = last.find((entry) => entry?.at === since)?.hours;
  const uplifts: FuelEntry[] = [];
  let burntL = 0;
  const amounts = tanks.map((tank, i): [string, Uncertain] => {
    const from = last[i] as FuelEntry;
    const parts: Uncertain[] = [{ value: from.litres, sigma: Math.max(1, 0.02 * tank.capacityL) }];
    for (const entry of ordered) {
      if (entry.at <= from.at || entry.entry === "measured") continue;
      if (entry.tankId !== undefined && entry.tankId !== tank.id) continue;
      const share = entry.tankId === undefined ? entry.litres / tanks.length : entry.litres;
      if (entry.entry === "uplift") {
        parts.push({ value: share, sigma: UPLIFT_ERROR * share });
        if (!uplifts.includes(entry)) uplifts.push(entry);
      } else {
        const unshared = entry.tankId === undefined ? SHARE_ERROR * entry.litres : 0;
        parts.push({ value: -share, sigma: Math.hypot(BURN_ERROR * share, unshared) });
        burntL += share;
      }
    }
    return [tank.id, sumOfUncertain(parts)];
  });
  return {
    since,
    tanks: Object.fromEntries(amounts),
    uplifts,
    burntL,
    ...(hours !== undefined && { hours }),
  };
}

/**
 * Expected fuel at hour meter `hoursNow`, by planned consumption shared evenly. Logged burn takes precedence over the meter.
 * Undefined if neither is available.
 * Valid range: burn ≥ 0 L/h; a meter that went back throws QuantityError.
 */
export function fuelByLog(
  expected: ExpectedFuel,
  hoursNow: number | undefined,
  burnLPerH: number | undefined,
  taxiL: number,
): { tanks: Record<string, Uncertain>; total: Uncertain; burntL: number } | undefined {
  const ids = Object.keys(expected.tanks);
  const total = (tanks: Record<string, Uncertain>) => sumOfUncertain(Object.values(tanks));
  if (expected.burntL > 0)
    return { tanks: expected.tanks, total: total(expected.tanks), burntL: expected.burntL };
  if (hoursNow === undefined || expected.hours === undefined || burnLPerH === undefined) return undefined;
  assertNotNegative("The planned burn", burnLPerH);
  const flown = hoursNow - expected.hours;
  if (flown < 0)
    throw new QuantityError(
      `The hour meter reads ${hoursNow}, but read ${expected.hours} when the fuel was last measured. Check the reading.`,
    );
  const burntL = flown > 0 ? flown * burnLPerH + taxiL : 0;
  const each = burntL / ids.length;
  const tanks = Object.fromEntries(
    ids.map((id) => {
      const from = expected.tanks[id] as Uncertain;
      const sigma = Math.hypot(from.sigma, BURN_ERROR * each, ids.length > 1 ? SHARE_ERROR * burntL : 0);
      return [id, { value: Math.max(0, from.value - each), sigma }];
    }),
  );
  // Uneven use between tanks does not affect their sum.
  const measured = sumOfUncertain(Object.values(expected.tanks));
  return {
    tanks,
    total: {
      value: Math.max(0, measured.value - burntL),
      sigma: Math.hypot(measured.sigma, BURN_ERROR * burntL),
    },
    burntL,
  };
}
