import type { FaultKind, SimulatedFault } from "@cravix/core/engine-model";
import type { RunUpProfile } from "@cravix/core/run-up";
import { useLocalSearchParams } from "expo-router";
import { useState } from "react";
import { type RandomScenario, randomScenario } from "./random-scenario";

export interface SimulatedFaultChoice {
  fault: SimulatedFault;
  side: "right" | "left";
  cylinder: number;
  severity: number;
  speed: number;
  seed: number;
  /** With individual cylinders and probes; false for a lesson with a fixed seed. */
  lifelike: boolean;
  /** Freshly started. */
  cold: boolean;
  /** Random fault: hidden from the learner until the end. */
  secret: boolean;
  /** Choice before the random fault, restored after it. */
  chosen: FaultKind;
  set: (kind: FaultKind) => void;
  /** Restores the choice. */
  known: () => void;
  /** Picks a random fault, or none. */
  draw: (profile: RunUpProfile) => void;
}

/** Fault of the simulated engine: chosen on the page, random, or from a lesson's address. */
export function useSimulatedFault(): SimulatedFaultChoice {
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
  const [lot, setLot] = useState<RandomScenario>();
  const side = query.side === "right" ? "right" : "left";
  const asked: RandomScenario = {
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
