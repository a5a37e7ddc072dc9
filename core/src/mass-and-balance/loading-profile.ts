import type { Source } from "../judgement/judgement";

/** Use of a station: only baggage and ballast can be moved freely. */
export const STATION_KINDS = ["seat", "baggage", "ballast"] as const;
export type LoadStationKind = (typeof STATION_KINDS)[number];

/** A loading station with its arm from the datum, mm; positive aft. */
export interface LoadStation {
  id: string;
  name: string;
  kind: LoadStationKind;
  armMm: number;
  maxKg?: number;
  /** Minimum mass on a glider's seat, ballast included. */
  minKg?: number;
  /** The pilot's seat. */
  pilot?: true;
}

/** A mass limit with its source. */
export interface MassLimit {
  value: number;
  source: Source;
}

/** What becomes of water ballast: it can land with it, or it has to be dumped before. */
export const WATER_WAYS = ["may stay", "dumped before landing"] as const;

/** A tank with its arm. */
export interface LoadTank {
  tank: string;
  armMm: number;
  /** Density of its contents, kg per litre, if it is not that of today's fuel. */
  kgPerL?: number;
  /** Water ballast: not burnt, but dumped in flight at any time, tank by tank in their order. */
  water?: (typeof WATER_WAYS)[number];
}

/** Mass and balance data of one aircraft, from its weighing report and handbook. */
export interface LoadingProfile {
  format: "cravix.loading/1";
  registration: string;
  /** Description of the datum. */
  datum: string;
  weighing: {
    date: string;
    emptyKg: number;
    armMm: number;
    /** Empty moment, kg·mm, if the report gives it: it then counts instead of mass times arm. */
    momentKgMm?: number;
    source: Source;
  };
  stations: LoadStation[];
  /** Arms of the tanks by id in the type, in order of use; those listed together are used evenly. */
  tanks: LoadTank[];
  burn?: string[][];
  /** Groups of stations with a common limit. */
  groups?: { name: string; stations: string[]; maxKg: number }[];
  /** Corners of the envelope in order: mass in kg, arm in mm. At each mass it is a single span. */
  envelope: { corners: { kg: number; armMm: number }[]; source: Source };
  maxTakeoffKg: MassLimit;
  /** Before engine start, with the fuel for taxiing. */
  maxRampKg?: MassLimit;
  maxLandingKg?: MassLimit;
  maxZeroFuelKg?: MassLimit;
  /** Gliders: mass of the non-lifting parts, including these stations. */
  nonLifting?: { emptyKg: number; stations: string[]; max: MassLimit };
}

/** Load: kilograms by station, litres by tank. */
export interface Load {
  stations: Readonly<Record<string, number>>;
  litres: Readonly<Record<string, number>>;
  /** Density of the fuel, kg per litre. */
  kgPerL: number;
  /** People on board including the pilot, if known. */
  people?: number;
}

/** Planned load: kilograms by station, and planned litres. */
export interface PlannedLoad {
  stations: Record<string, number>;
  litres?: Record<string, number>;
}

/** Fuel burnt before take-off, and from take-off to landing, litres. */
export interface Burn {
  taxiL: number;
  tripL: number;
  /** Reserve required by the rules. */
  reserveL?: number;
}
