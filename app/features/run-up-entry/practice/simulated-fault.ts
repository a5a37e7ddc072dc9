import type { FaultKind, SimulatedFault } from "@cravix/core/engine-model";
import type { RunUpProfile } from "@cravix/core/run-up";
import { useLocalSearchParams } from "expo-router";
import { useState } from "react";
import { type Lot, randomScenario } from "./random-scenario";

export interface Planted {
  fault: SimulatedFault;
  side: "right" | "left";
  cylinder: number;
  severity: number;
  speed: number;
  seed: number;
  /** An engine as they are met, with its own cylinders and probes; a textbook one where a lesson names its seed. */
  lifelike: boolean;
  /** It has just been started. */
  cold: boolean;
  /** It was drawn by lot: the learner is not told before the end. */
  secret: boolean;
  /** What was chosen before the lot was drawn, and holds again after it. */
  chosen: FaultKind;
  set: (kind: FaultKind) => void;
  /** Back from the lot to what was chosen. */
  known: () => void;
  /** Draws a trouble by lot, or none. */
  draw: (profile: RunUpProfile) => void;
}

/** What the stand-in has: chosen on the page, drawn by lot, or for a lesson in the address. */
export function usePlanted(): Planted {
  const query = useLocalSearchParams<{
    fault?: string;
    side?: string;
    cylinder?: string;
    severity?: string;
    speed?: string;
    seed?: string;
    warm?: string;
  }>();
  const [kind, setKind] = useState<FaultKind>((query.fault as FaultKind) ?? "none");
  const [lot, setLot] = useState<Lot>();
  const side = query.side === "right" ? "right" : "left";
  const asked: Lot = {
    kind,
    side,
    cylinder: Number(query.cylinder ?? 3) || 3,
    severity: Number(query.severity ?? 0.5),
    seed: Number(query.seed ?? 11) || 11,
  };
  const { kind: now, ...place } = lot ?? asked;
  return {
    ...place,
    fault: { kind: now, side: place.side, cylinder: place.cylinder } as SimulatedFault,
    speed: Number(query.speed ?? 1) || 1,
    lifelike: lot !== undefined || query.seed === undefined,
    cold: query.warm === "no",
    secret: lot !== undefined,
    chosen: kind,
    set: (picked) => {
      setKind(picked);
      setLot(undefined);
    },
    known: () => setLot(undefined),
    draw: (profile) => setLot(randomScenario(profile)),
  };
}
