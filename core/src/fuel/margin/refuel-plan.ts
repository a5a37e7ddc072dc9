import { assertNotNegative, QuantityError } from "../../units/convert";
import { type FuelUnit, fuelFromLitres, litresOfFuel } from "../grade/fuel-amount";
import type { Tank } from "../tanks/tank";

export interface TankFill {
  tanks: readonly (Pick<Tank, "id" | "name" | "capacityL" | "side" | "fillOrder"> & { volumeL: number })[];
  /** Litres needed, ≥ 0. */
  neededL: number;
  /** Maximum difference between left and right, litres. */
  imbalanceL?: number;
  /** Kilograms that may still be loaded. Absent: unknown and not checked. */
  massRoomKg?: number;
  kgPerL: number;
  /** Unit of the pump, and its smallest step. */
  pump: { unit: FuelUnit; step: number };
}

export interface RefuelPlan {
  litres: number;
  /** In the pump's unit, one hose at a time, in this order. */
  steps: { tankId: string; name: string; litres: number; amount: number }[];
  unit: FuelUnit;
  /** Litres needed that do not fit, and why. */
  missingL: number;
  limitedBy?: "tanks" | "mass";
  /** Litres to full tanks, as far as the mass allows. */
  fullL: number;
}

/**
 * Plans how much to add to which tank: main tanks before tips, level with each other, and never above the allowed imbalance at
 * any moment, since refuelling may be cut short. Rounded up to the pump's step if the tank has room.
 * Valid range: amounts ≥ 0, volumes up to the capacity, step > 0; throws QuantityError otherwise. Source: arithmetic.
 */
export function refuelPlan({ tanks, neededL, imbalanceL, massRoomKg, kgPerL, pump }: TankFill): RefuelPlan {
  assertNotNegative("The missing amount", neededL);
  if (!(pump.step > 0)) throw new QuantityError("The pump step must be more than zero.");
  for (const { name, volumeL, capacityL } of tanks) {
    assertNotNegative(`The fuel in the ${name}`, volumeL);
    if (volumeL > capacityL + 1e-6)
      throw new QuantityError(
        `The ${name} holds ${capacityL} L, so ${volumeL} L is not possible. Check the number.`,
      );
  }
  const roomL = tanks.reduce((sum, t) => sum + t.capacityL - t.volumeL, 0);
  const massL = massRoomKg === undefined ? Number.POSITIVE_INFINITY : Math.max(0, massRoomKg) / kgPerL;
  const stepL = litresOfFuel(pump.step, pump.unit, kgPerL);
  const level = new Map(tanks.map((t) => [t.id, t.volumeL]));
  const target = shares(tanks, Math.min(neededL, roomL, massL));
  // Round up to the pump's step, or down if tank or mass leaves no room.
  let added = 0;
  for (const tank of tanks) {
    const wanted = target.get(tank.id) ?? 0;
    const most = Math.min(tank.capacityL - tank.volumeL, massL - added);
    const up = Math.ceil(wanted / stepL - 1e-9) * stepL;
    const take = up <= most + 1e-9 ? up : Math.floor(most / stepL + 1e-9) * stepL;
    target.set(tank.id, take);
    added += take;
  }
  const steps = inOrder(tanks, target, level, imbalanceL).map(({ tankId, litres }) => ({
    tankId,
    name: tanks.find((t) => t.id === tankId)?.name ?? tankId,
    litres,
    amount: Number(fuelFromLitres(litres, pump.unit, kgPerL).toFixed(3)),
  }));
  const missingL = Math.max(0, neededL - added);
  return {
    litres: added,
    steps,
    unit: pump.unit,
    missingL: missingL < 1e-6 ? 0 : missingL,
    ...(missingL >= 1e-6 && { limitedBy: massL < roomL ? ("mass" as const) : ("tanks" as const) }),
    fullL: Math.min(roomL, massL),
  };
}

/** Litres for each tank: group by fill order, within a group until they are level. */
function shares(tanks: TankFill["tanks"], litres: number): Map<string, number> {
  const result = new Map<string, number>();
  let left = litres;
  const ranks = [...new Set(tanks.map((t) => t.fillOrder ?? 0))].sort((a, b) => a - b);
  for (const rank of ranks) {
    const group = tanks.filter((t) => (t.fillOrder ?? 0) === rank);
    const here = Math.min(
      left,
      group.reduce((sum, t) => sum + t.capacityL - t.volumeL, 0),
    );
    // Finds the common fill level by bisection.
    let low = Math.min(...group.map((t) => t.volumeL));
    let high = Math.max(...group.map((t) => t.capacityL));
    const filled = (to: number) =>
      group.reduce((sum, t) => sum + Math.max(0, Math.min(to, t.capacityL) - t.volumeL), 0);
    for (let i = 0; i < 60; i++) {
      const middle = (low + high) / 2;
      if (filled(middle) < here) low = middle;
      else high = middle;
    }
    for (const t of group) result.set(t.id, Math.max(0, Math.min(high, t.capacityL) - t.volumeL));
    left -= here;
  }
  return result;
}

/** One hose at a time: the lighter side first, switching before the imbalance is too great. */
function inOrder(
  tanks: TankFill["tanks"],
  target: ReadonlyMap<string, number>,
  level: Map<string, number>,
  imbalanceL: number | undefined,
): { tankId: string; litres: number }[] {
  const left = new Map(target);
  const sideOf = (side: "left" | "right") =>
    tanks.filter((t) => t.side === side).reduce((sum, t) => sum + (level.get(t.id) ?? 0), 0);
  const steps: { tankId: string; litres: number }[] = [];
  for (let turn = 0; turn < 400; turn++) {
    const open = tanks.filter((t) => (left.get(t.id) ?? 0) > 1e-9);
    if (open.length === 0) break;
    const lean = sideOf("right") - sideOf("left");
    const rank = Math.min(...open.map((t) => t.fillOrder ?? 0));
    const group = open.filter((t) => (t.fillOrder ?? 0) === rank);
    const lighter = lean > 0 ? "left" : "right";
    const tank =
      group.find((t) => t.side === lighter && lean !== 0) ??
      group.reduce((low, t) => ((level.get(t.id) ?? 0) < (level.get(low.id) ?? 0) ? t : low));
    const ahead = tank.side === "right" ? lean : tank.side === "left" ? -lean : 0;
    // No need to wait if the other side is complete.
    const waits = tank.side && group.some((t) => t.side && t.side !== tank.side);
    const room =
      waits && imbalanceL !== undefined ? Math.max(0, imbalanceL - ahead) : Number.POSITIVE_INFINITY;
    const litres = Math.min(left.get(tank.id) ?? 0, room > 1e-9 ? room : Number.POSITIVE_INFINITY);
    left.set(tank.id, (left.get(tank.id) ?? 0) - litres);
    level.set(tank.id, (level.get(tank.id) ?? 0) + litres);
    const last = steps.at(-1);
    if (last?.tankId === tank.id) last.litres += litres;
    else steps.push({ tankId: tank.id, litres });
  }
  return steps;
}
