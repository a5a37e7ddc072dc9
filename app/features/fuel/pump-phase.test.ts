import type { Receipt } from "@cravix/contract/client";
import { FIRST_ORDER, type PumpPhase, type PumpStep, pumpPhase } from "./pump-phase";

const receipt: Receipt = {
  registration: "QX-TAR",
  amount: 40,
  unit: "L",
  grade: "100LL",
  receipt: "7",
  at: "",
};
const start: PumpStep = { type: "started" };
const after = (...steps: PumpStep[]): PumpPhase => steps.reduce(pumpPhase, FIRST_ORDER);

test.each<[string, PumpStep[], PumpPhase]>([
  ["the order is stepped", [{ type: "stepped", by: 5, capacityL: 90 }], { name: "ordering", litres: 45 }],
  [
    "never more than the tank holds",
    [{ type: "stepped", by: 500, capacityL: 90.7 }],
    { name: "ordering", litres: 90 },
  ],
  [
    "never less than the pump gives",
    [{ type: "stepped", by: -500, capacityL: 90 }],
    { name: "ordering", litres: 5 },
  ],
  [
    "a tank smaller than that",
    [{ type: "stepped", by: -500, capacityL: 3 }],
    { name: "ordering", litres: 5 },
  ],
  ["started", [start], { name: "pumping", litres: 40 }],
  [
    "a second start, or a step, changes nothing while it runs",
    [start, start, { type: "stepped", by: 5, capacityL: 90 }],
    { name: "pumping", litres: 40 },
  ],
  ["delivered", [start, { type: "delivered", receipt }], { name: "delivered", receipt }],
  [
    "failed: the order stays",
    [start, { type: "failed", problem: "No network" }],
    { name: "ordering", litres: 40, problem: "No network" },
  ],
  ["tried again", [start, { type: "failed", problem: "No network" }, start], { name: "pumping", litres: 40 }],
  ["an answer that nobody waits for", [{ type: "delivered", receipt }], FIRST_ORDER],
  [
    "one receipt is not replaced by another",
    [start, { type: "delivered", receipt }, { type: "failed", problem: "late" }],
    { name: "delivered", receipt },
  ],
])("%s", (_, steps, phase) => expect(after(...steps)).toEqual(phase));
