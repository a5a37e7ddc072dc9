import type { NightAir } from "./drain/overnight-condensation";
import type { FuelUnit } from "./grade/fuel-amount";
import type { Tilt } from "./tanks/dip-corrected-for-tilt";

/** What is done with a fuel sample: methods differ. */
export const SAMPLE_FATES = ["discarded", "poured back", "kept"] as const;
export type SampleFate = (typeof SAMPLE_FATES)[number];

/** The pilot's knowledge of today's fuel that no instrument shows; later input replaces the fields it names. */
export interface FuelInputs {
  /** Unit for displaying amounts. */
  unit?: FuelUnit;
  /** Name of the planned power setting in the profile. */
  setting?: string;
  /** People, baggage and everything else but fuel, kilograms. */
  payloadKg?: number;
  /** Slope of the aircraft on the ground. */
  tilt?: Tilt;
  /** Overnight conditions since it was last drained. */
  night?: NightAir;
}
