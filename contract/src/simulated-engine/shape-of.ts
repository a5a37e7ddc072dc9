import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import type { EngineShape } from "@cravix/core/engine-model";

/** Shape of the simulated engine for a type: cylinders, fuel system, propeller. Undefined without an engine. */
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
    // A healthy engine is well within its green arc.
    oilPsi: min + 0.62 * (max - min),
  };
}
