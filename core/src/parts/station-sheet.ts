import type { StationPhase, StationRole } from "../aircraft/aircraft-type";

/** A card of a station. Without a title it has the station's name. */
export interface StationCard {
  id: string;
  title?: string;
  done?: string;
}

/**
 * A station as every aircraft has it: its name, its phase, and the order in which things are looked at there. An id with "{side}"
 * stands for a left and a right station.
 */
export interface StationSheet {
  id: string;
  name: string;
  phase: StationPhase;
  role: StationRole;
  /** Item ids, in the order in which they are asked. */
  order: string[];
  cards?: StationCard[];
}

/** All stations of the library, in the order of a flight. */
export interface StationsFile {
  format: "cravix.stations/1";
  stations: StationSheet[];
}
