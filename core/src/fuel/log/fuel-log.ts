import { assertNotNegative, QuantityError } from "../../units/convert";
import { sumOfUncertain, type Uncertain } from "../../units/uncertain";
import type { FuelUnit } from "../grade/fuel-amount";
import type { Tank } from "../tanks/tank";

/** One line of an aircraft's fuel log. */
export interface FuelEntry {
  /** ISO 8601, UTC. */
  at: string;
  /** How much was in a tank, how much was put in, how much was burnt. */
  entry: "measured" | "uplift" | "burn";
  /** Absent: all tanks together, shared evenly. */
  tankId?: string;
  litres: number;
  /** As it was written down. */
  amount: number;
  unit: FuelUnit;
  /** The hour meter then. */
  hours?: number;
  grade?: string;
  receipt?: string;
}

/** What the log says should be in each tank. */
export interface ExpectedFuel {
  /** The hour meter at the last measuring. */
  hours?: number;
  /** When each tank was last measured, the earliest of them. */
  since: string;
  /** Measured then, with what has been put in and booked as burnt since; burn by the hour meter is still to be taken off. */
  tanks: Record<string, Uncertain>;
  /** What was put in since, to look for a slip in. */
  uplifts: FuelEntry[];
  /** What was booked as burnt since, litres: then the hour meter is not asked. */
  burntL: number;
}

/** How far a booked figure can be off, part of it: burn by the book, an uplift by the pump; and how unevenly two tanks empty (common practice). */
export const BURN_ERROR = 0.08;
const UPLIFT_ERROR = 0.005;
const SHARE_ERROR = 0.1;

/**
 * What should be in the tanks by the log: what was measured last, more what was put in, less what was booked as burnt since. Undefined where
 * a tank was never measured: then the log does not count.
 * Valid range: litres ≥ 0 in every line; a negative burn or uplift throws QuantityError. Source: bookkeeping; errors add by JCGM 100:2008.
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
 * The log's word for now: what should be left when the hour meter has gone on to `hoursNow`, by the planned burn, shared evenly. What was
 * booked as burnt goes before the meter. Undefined where neither a meter nor a booking tells what was burnt.
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
  // How unevenly the tanks empty is of no matter for their sum.
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
