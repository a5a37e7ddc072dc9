import type { PlantedFault } from "@cravix/core/engine-model";
import { useLocalSearchParams } from "expo-router";
import { useState } from "react";

export interface Planted {
  fault: PlantedFault;
  side: "right" | "left";
  cylinder: number;
  severity: number;
  speed: number;
  seed: number;
  /** It has just been started. */
  cold: boolean;
  set: (kind: PlantedFault["kind"]) => void;
}

/** What the stand-in has: chosen on the page, or for a lesson in the address. */
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
  const [kind, setKind] = useState<PlantedFault["kind"]>((query.fault as PlantedFault["kind"]) ?? "none");
  const side = query.side === "right" ? "right" : "left";
  const cylinder = Number(query.cylinder ?? 3) || 3;
  return {
    fault: { kind, side, cylinder } as PlantedFault,
    side,
    cylinder,
    severity: Number(query.severity ?? 0.5),
    speed: Number(query.speed ?? 1) || 1,
    seed: Number(query.seed ?? 11) || 11,
    cold: query.warm === "no",
    set: setKind,
  };
}
