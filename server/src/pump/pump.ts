import type { Receipt } from "@cravix/contract";
import { type FuelUnit, fuelFromLitres } from "@cravix/core/fuel/grade/fuel-amount";
import { fuelDensity } from "@cravix/core/fuel/grade/fuel-grades";
import { seededRandom } from "@cravix/core/units/seeded-random";

/** Possible receipt faults of the simulated pump; the fuel delivered is always as ordered. */
export const PUMP_ERRORS = ["none", "other unit", "wrong unit", "digits swapped"] as const;
export type PumpError = (typeof PUMP_ERRORS)[number];

export interface PumpOrder {
  registration: string;
  tankId?: string;
  litres: number;
  grade: string;
}

/** Maximum per delivery, litres. */
export const MAX_AT_ONCE_L = 400;

/**
 * A simulated self-service pump: delivers what is ordered and prints a receipt, sometimes in gallons, sometimes wrong. Faults
 * follow from the delivery number, so that tests and lessons are predictable.
 */
export class Pump {
  #count = 0;
  #totalL = 18_420;

  constructor(readonly seed = 7) {}

  /** Fault of a delivery number: usually none. */
  troubleOf(count: number): PumpError {
    const dice = seededRandom(this.seed * 1000 + count)();
    if (dice < 0.5) return "none";
    if (dice < 0.75) return "other unit";
    return dice < 0.9 ? "wrong unit" : "digits swapped";
  }

  /** Totaliser, litres. */
  get totalL(): number {
    return this.#totalL;
  }

  deliver(order: PumpOrder, at: Date, trouble = this.troubleOf(this.#count + 1)): Receipt {
    this.#count++;
    this.#totalL += order.litres;
    const paper = this.#paper(order, trouble);
    return {
      receipt: String(4200 + this.#count),
      at: at.toISOString(),
      registration: order.registration,
      ...(order.tankId && { tankId: order.tankId }),
      ...paper,
      grade: order.grade,
    };
  }

  #paper({ litres, grade }: PumpOrder, trouble: PumpError): { amount: number; unit: FuelUnit } {
    const amount = (value: number) => Number(value.toFixed(1));
    switch (trouble) {
      case "none":
        return { amount: amount(litres), unit: "L" };
      case "other unit":
        return { amount: amount(fuelFromLitres(litres, "US gal", fuelDensity(grade))), unit: "US gal" };
      case "wrong unit":
        return { amount: amount(litres), unit: "US gal" };
      case "digits swapped": {
        const text = String(Math.round(litres));
        const swapped = text.length > 1 ? text.slice(0, -2) + text.slice(-1) + text.slice(-2, -1) : text;
        return { amount: Number(swapped) || amount(litres), unit: "L" };
      }
    }
  }
}
