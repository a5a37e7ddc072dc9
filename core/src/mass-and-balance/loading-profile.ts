import type { Source } from "../judgement/judgement";

/** What a place in the aircraft is for: only bags and ballast are moved freely. */
export const STATION_KINDS = ["seat", "baggage", "ballast"] as const;
export type LoadStationKind = (typeof STATION_KINDS)[number];

/** A place where something is loaded, with its arm from the datum, mm; positive behind it. */
export interface LoadStation {
  id: string;
  name: string;
  kind: LoadStationKind;
  armMm: number;
  maxKg?: number;
  /** A glider's seat: so much has to sit there, ballast included. */
  minKg?: number;
  /** Who flies sits here and stays. */
  pilot?: true;
}

/** A limit of mass with its source. */
export interface MassLimit {
  value: number;
  source: Source;
}

/** What one aircraft weighs and where, and within which limits, as its weighing report and handbook have it. */
export interface LoadingProfile {
  format: "cravix.loading/1";
  registration: string;
  /** From where arms are measured. */
  datum: string;
  weighing: { date: string; emptyKg: number; armMm: number; source: Source };
  stations: LoadStation[];
  /** Arms of the tanks, by their id in the type; and in which order they are used: those named together evenly. */
  tanks: { tank: string; armMm: number }[];
  burn?: string[][];
  /** Several places that together hold no more than this. */
  groups?: { name: string; stations: string[]; maxKg: number }[];
  /** The corners of what is allowed, in their order round it: mass in kg, arm in mm. At each mass it is one span. */
  envelope: { corners: { kg: number; armMm: number }[]; source: Source };
  maxTakeoffKg: MassLimit;
  maxLandingKg?: MassLimit;
  maxZeroFuelKg?: MassLimit;
  /** Gliders: the mass of everything that carries no lift, with these stations. */
  nonLifting?: { emptyKg: number; stations: string[]; max: MassLimit };
}

/** Who and what is in the aircraft: kilograms by station, litres by tank. */
export interface Load {
  stations: Readonly<Record<string, number>>;
  litres: Readonly<Record<string, number>>;
  /** What a litre weighs, kg. */
  kgPerL: number;
  /** How many are aboard with the pilot, where it is known. */
  people?: number;
}

/** A load as it was planned: kilograms by station, and the litres that were reckoned with. */
export interface PlannedLoad {
  stations: Record<string, number>;
  litres?: Record<string, number>;
}

/** What will be burnt: before take-off, and from there to the landing, litres. */
export interface Burn {
  taxiL: number;
  tripL: number;
  /** What the rules want left after it. */
  reserveL?: number;
}
