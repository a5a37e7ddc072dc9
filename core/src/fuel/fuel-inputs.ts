import type { NightAir } from "./drain/overnight-condensation";
import type { FuelUnit } from "./grade/fuel-amount";
import type { Tilt } from "./tanks/dip-corrected-for-tilt";

/** What becomes of a cup of fuel: methods differ. */
export const SAMPLE_FATES = ["discarded", "poured back", "kept"] as const;
export type SampleFate = (typeof SAMPLE_FATES)[number];

/** What a person knows about today's fuel that no instrument shows; what is told later replaces the part that it names. */
export interface FuelInputs {
  /** The unit in which amounts are to be said. */
  unit?: FuelUnit;
  /** The power setting that is planned, by its name in the profile. */
  setting?: string;
  /** People, baggage and everything else but fuel, kilograms. */
  payloadKg?: number;
  /** How it stands. */
  tilt?: Tilt;
  /** What it stood through since it was drained last. */
  night?: NightAir;
}
