import type { AircraftType } from "@cravix/core";
import type { EngineShape } from "@cravix/core/engine-model";

/** The stand-in's engine for a type: as many cylinders, the same kind of fuel system and propeller. Undefined for an aircraft without an engine. */
export function shapeOf({ runUp }: Pick<AircraftType, "runUp">): EngineShape | undefined {
  if (!runUp) return undefined;
  const { cylinders, fuelSystem, propeller, volts, ratedRpm, suction, oilPressure } = runUp;
  const { min = 40, max = 90 } = oilPressure;
  return {
    cylinders,
    fuelSystem,
    propeller,
    volts,
    ratedRpm,
    vacuumPump: suction,
    // A healthy engine stands well inside its green arc.
    oilPsi: min + 0.62 * (max - min),
  };
}
