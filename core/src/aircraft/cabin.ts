export const CABIN_ENTRIES = ["doors", "canopy"] as const;
export const BELT_KINDS = ["lap belt", "shoulder belts", "harness"] as const;
export const PARACHUTE_KINDS = ["worn", "aircraft"] as const;

/** What a passenger needs to know of the cabin, from the type's file. */
export interface Cabin {
  entry: (typeof CABIN_ENTRIES)[number];
  /** Ways out in an emergency, as told to a passenger: "the window beside you". */
  exits?: string;
  /** The canopy can be thrown off. */
  jettison?: true;
  belts: (typeof BELT_KINDS)[number];
  /** Worn by each person, or fired by a handle for the whole aircraft. */
  parachute?: (typeof PARACHUTE_KINDS)[number];
  /** Where they are: "between the front seats". */
  extinguisher?: string;
  beacon?: string;
  hammer?: string;
  /** Has a propeller to stay clear of. */
  propeller?: true;
}
