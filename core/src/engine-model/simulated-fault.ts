export type Side = "right" | "left";

/** A fault of the simulated engine, by kind and location. `severity` from barely present (0) to obvious (1). */
export type SimulatedFault =
  | { kind: "none" }
  | { kind: "fouled plug"; side: Side; cylinder: number }
  | { kind: "dead plug"; side: Side; cylinder: number }
  | { kind: "dead magneto"; side: Side }
  /** Not grounded by the switch: it keeps firing. */
  | { kind: "hot magneto"; side: Side }
  /** Fires late by some degrees. */
  | { kind: "timing off"; side: Side }
  | { kind: "rich at altitude" }
  | { kind: "carburettor ice" }
  | { kind: "heat cable off" }
  | { kind: "blocked intake" }
  | { kind: "alternator off line" }
  | { kind: "regulator high" }
  | { kind: "suction low" }
  | { kind: "oil pressure low" }
  | { kind: "governor slow" }
  | { kind: "idle low" }
  | { kind: "induction leak"; cylinder: number }
  /** The probe of one cylinder gives erratic readings. */
  | { kind: "sensor fault"; cylinder: number };

export type FaultKind = SimulatedFault["kind"];

export const FAULT_KINDS: readonly FaultKind[] = [
  "none",
  "fouled plug",
  "dead plug",
  "dead magneto",
  "hot magneto",
  "timing off",
  "rich at altitude",
  "carburettor ice",
  "heat cable off",
  "blocked intake",
  "alternator off line",
  "regulator high",
  "suction low",
  "oil pressure low",
  "governor slow",
  "idle low",
  "induction leak",
  "sensor fault",
];
