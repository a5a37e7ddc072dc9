import type { Receipt } from "@cravix/contract/client";

/** State of a delivery at the pump. The order is kept while the pump runs, so that it cannot start twice. */
export type PumpPhase =
  | { name: "ordering"; litres: number; problem?: string }
  | { name: "pumping"; litres: number }
  | { name: "delivered"; receipt: Receipt };

export type PumpStep =
  | { type: "stepped"; by: number; capacityL: number }
  | { type: "started" }
  | { type: "delivered"; receipt: Receipt }
  | { type: "failed"; problem: string };

/** Smallest order. */
const LEAST_L = 5;

export const FIRST_ORDER: PumpPhase = { name: "ordering", litres: 40 };

/** Next phase; a step that does not belong to the phase changes nothing. */
export function pumpPhase(phase: PumpPhase, step: PumpStep): PumpPhase {
  switch (phase.name) {
    case "ordering":
      if (step.type === "stepped")
        return { name: "ordering", litres: within(phase.litres + step.by, step.capacityL) };
      return step.type === "started" ? { name: "pumping", litres: phase.litres } : phase;
    case "pumping":
      if (step.type === "delivered") return { name: "delivered", receipt: step.receipt };
      return step.type === "failed"
        ? { name: "ordering", litres: phase.litres, problem: step.problem }
        : phase;
    case "delivered":
      return phase;
  }
}

const within = (litres: number, capacityL: number): number =>
  Math.min(Math.max(LEAST_L, Math.floor(capacityL)), Math.max(LEAST_L, litres));
