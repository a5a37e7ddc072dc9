/** An aircraft known on this device, and the frame of every page about one. */

export { AircraftFrame, type KnownAircraft } from "./aircraft-frame";
export { useOpenDiscrepancies } from "./use-open-discrepancies";
